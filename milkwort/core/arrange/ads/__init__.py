"""Written ads: their fields as they will appear, what is wrong with them, what they say, drafts."""
