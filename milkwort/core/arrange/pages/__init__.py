"""Pages of the site: which words they say, which fits a group, which are worth writing."""
