"""The rules of the job as pure functions: numbers in, numbers out."""
