"""Simulated outside services, offline and seeded; none is built yet."""
