"""Tools of the project: checks, pictures, the program as tests run it."""
