"""The server: app, guard, events, jobs, files of lists. Nothing of the job."""
