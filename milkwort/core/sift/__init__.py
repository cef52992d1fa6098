"""Rules of calling keywords: words of the sheet, house rules."""
