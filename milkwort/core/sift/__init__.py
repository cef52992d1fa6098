"""Rules of judging keywords: words of the sheet, house rules."""
