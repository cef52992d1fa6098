"""All clients on one page: what each plan's month is like, and what waits. No plan is changed."""
