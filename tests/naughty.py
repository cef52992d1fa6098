"""Texts that break programs: signs of every sort, of no width, from both sides, and of code."""

__all__ = ["SPECTRUM", "TEXTS"]

TEXTS: tuple[str, ...] = (
    "undefined", "NULL", "None", "true", "NaN", "-Infinity", "1e400", "0x1F", "1/0", "٣٫١٤",
    "1.234,56", "$1,000.00", "=1+1", "+44 20 7946 0000", "-1", "@SUM(A1)", "=cmd|' /C calc'!A0",
    "'quoted", '"quoted"', "“curly”", "back\\slash", "semi;colon", "comma,comma", "pipe|pipe",
    "per%cent", "{braces}", "[brackets]", "<b>bold</b>", "<script>alert(1)</script>",
    "&amp;&lt;", "%s%d", "{{7*7}}", "${7*7}", "#let x = 1", "$ sum $", "../../etc/passwd",
    "CON", "a" * 300, "é́́́", "Ω≈ç√∫˜µ≤", "田中さんに", "사회과학원",
    "ﷺ العربية", "שלום עולם",
    "ภาษาไทย", "🏳️‍🌈👩‍👩‍👧‍👦", "🇬🇧🇩🇪",
    "Ｆｕｌｌ　ｗｉｄｔｈ", "ǅ ß İ ı ſ", "zero\u200bwidth",
    "soft\u00adhyphen", "no\u00a0break", "\u202eright to left", "\ufeffmark", "line\u2028end",
    "T̶̨̛o̵͝ ̷̡i̸n", "tab\tin", "ends in space ", " begins with one", "sash" + " window" * 3,
)  # fmt: skip

SPECTRUM: dict[str, tuple[str, list[tuple[str, ...]]]] = {
    "simple": ("a,b,c\n1,2,3\n", [("a", "b", "c"), ("1", "2", "3")]),
    "lines that end as elsewhere": ("a,b,c\r\n1,2,3\r\n", [("a", "b", "c"), ("1", "2", "3")]),
    "no last line end": ("a,b\n1,2", [("a", "b"), ("1", "2")]),
    "a comma in quotes": ('a,b\n"x, y",2\n', [("a", "b"), ("x, y", "2")]),
    "a quote in quotes": ('a,b\n1,"ha ""ha"" ha"\n', [("a", "b"), ("1", 'ha "ha" ha')]),
    "a line end in quotes": ('a,b\n1,"once\nupon"\n', [("a", "b"), ("1", "once\nupon")]),
    "both in quotes": ('a,b\n1,"ha \n""ha"" \nha"\n', [("a", "b"), ("1", 'ha \n"ha" \nha')]),
    "JSON in a cell": (
        'key,val\n1,"{""type"": ""Point"", ""at"": [102.0, 0.5]}"\n',
        [("key", "val"), ("1", '{"type": "Point", "at": [102.0, 0.5]}')],
    ),
    "empty cells": ('a,b,c\n1,"",""\n2,3,4\n', [("a", "b", "c"), ("1", "", ""), ("2", "3", "4")]),
    "signs beyond ASCII": ("a,b\n1,ʤ\n", [("a", "b"), ("1", "ʤ")]),
    "semicolons": ("a;b\n1,5;x\n", [("a", "b"), ("1,5", "x")]),
    "tabs": ("a\tb\n1\tx y\n", [("a", "b"), ("1", "x y")]),
}
"""Tables as other programs write them: what is written, and what it says."""
