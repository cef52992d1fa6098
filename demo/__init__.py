"""The sample plan's files, installed as `milkwort.samples`."""
