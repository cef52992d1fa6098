"""Who serves which search, said once more in plain loops over every pair."""

from milkwort.core.market.keyword_table import CALLS
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.matching import text_matches
from milkwort.core.words.texts import singular


def serve_plainly(table, volume, shown_more, negatives, close_forms=True):
    """Return {row: (D, U, X, W)} of the kept rows that run; negatives as `Negative`."""
    n = len(table)
    match = [MATCHES[m] for m in table.match]
    call = [CALLS[c] for c in table.call]

    def acts(negative, row):
        column = {"group": table.group, "campaign": table.campaign}.get(negative.level)
        return column is None or column[row] == negative.number

    def stopped(text, row):
        return any(
            acts(n, row) and text_matches(n.match, n.text, text, close_forms=False)
            for n in negatives
        )

    kept = [
        i for i in range(n)
        if call[i] == "keep" and not stopped(table.texts[i], i) and volume[i] == volume[i]
    ]  # fmt: skip

    def specific(i):
        return (int(table.match[i]), -len(table.texts[i].split()), table.texts[i])

    own = {}
    for i in kept:
        same = [j for j in kept if table.texts[j] == table.texts[i]]
        own[i] = volume[i] if i == min(same, key=specific) else 0.0
    texts = list(dict.fromkeys(table.texts))
    speaker = {}
    for text in texts:
        rows = [i for i in range(n) if table.texts[i] == text]
        speaker[text] = min([i for i in rows if i in own] or rows, key=specific)
    d_of = {t: 0.0 if volume[s] != volume[s] else float(volume[s]) for t, s in speaker.items()}

    def sees(i, text):
        return text != table.texts[i] and text_matches(
            match[i], table.texts[i], text, close_forms=close_forms
        )

    server = {}
    for text in texts:
        if speaker[text] in own:
            continue
        able = [i for i in kept if sees(i, text) and not stopped(text, i)]
        if able:
            server[text] = min(able, key=specific)
    unknown = dict.fromkeys(kept, 0.0)

    def different_words(i):
        words = table.texts[i].split()
        return len({singular(w) if close_forms else w for w in words})

    # no text is matched by one of more different words
    order = sorted(kept, key=lambda i: (-different_words(i), *specific(i)))
    for i in order:
        known = sum(
            d_of[t] + sum(unknown[j] for j in kept if table.texts[j] == t)
            for t in texts
            if sees(i, t)
        )
        twins = sum(unknown[j] for j in kept if table.texts[j] == table.texts[i])
        unknown[i] = max(0.0, volume[i] * shown_more[i] - known - twins)
    result = {}
    for i in kept:
        mine = [t for t, s in server.items() if s == i]
        judged = [t for t in mine if call[speaker[t]] in ("drop", "block")]
        result[i] = (
            own[i],
            sum(d_of[t] for t in mine if t not in judged),
            unknown[i],
            sum(d_of[t] for t in judged),
        )
    return result
