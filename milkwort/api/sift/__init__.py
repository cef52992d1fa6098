"""Routes of Sift: the list, words, calls and edits, workings."""
