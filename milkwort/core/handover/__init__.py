"""Rules of leaving: what a careful person looks at before, and what is uploaded."""
