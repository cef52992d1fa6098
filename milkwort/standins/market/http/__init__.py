"""The market's calls: what may be asked, checked and answered. What they do is beside this."""
