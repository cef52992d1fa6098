"""The hidden truth: drawn once from a seed when an account opens, kept, and never shown."""

from __future__ import annotations

import io
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, fields

import numpy as np
import orjson
from numpy.typing import NDArray
from scipy.special import betaincinv, ndtr, ndtri, stdtrit

from milkwort.standins.market.known import Known, KnownKeyword
from milkwort.standins.market.levels import Level
from milkwort.standins.market.luck import Keys, keys_of, mixed, normal, uniform
from milkwort.standins.market.terms import unknown_terms

__all__ = ["World", "draw_world", "world_from_bytes", "world_to_bytes"]

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_P90 = float(ndtri(0.9))
_DEAD = 0.05
_LEAST_WIDTH = 0.05
_ONE_PRICE_RATIO = 2.5
_MOST_RATE = 0.95
_USEFUL = 0.66
"""Share of unknown searches that are of use, in the mean of the lists they are made from."""
_PLANNED_CLICKS, _PLANNED_RATE = (1.0, 0.9, 0.7), (1.0, 0.85, 0.6)
"""What a planner assumes of searches beside a keyword's own text: exact, phrase, broad."""


@dataclass(frozen=True)
class World:
    """What is true of every text; arrays of shape (n_texts,) unless said otherwise.

    Attributes
    ----------
    texts : tuple of str
        Normalised: those the planner knows first.
    n_known : int
    key : Keys
    searches : Floats
        A month of the mean year.
    months : Floats, shape (n_texts, 12)
        Month index, mean 1.
    mu, sigma : Floats
        Of the prices it takes to win a click; σ by its quartiles.
    click_rate, rate : Floats
        Clicks a showing at the top; customers a click.
    close : Floats
        Customers per enquiry; NaN where none are told.
    offer, base, theme : Ints
        Its offer; the known text it was made from, its own place if known; its theme.
    click_share, rate_share : Floats, shape (n_texts, 3)
        Of its click rate and conversion where it is not a keyword's own text, by match type.
    useful : ndarray of bool
    theme_keys : Keys, shape (n_themes,)
    hours : Floats, shape (n_themes, 24)
        Sum 1.
    weekdays : Floats, shape (n_themes, 7)
        Mean 1.
    click_bottom, click_power, invalid : float
    seed : int
    """

    texts: tuple[str, ...]
    n_known: int
    key: Keys
    searches: Floats
    months: Floats
    mu: Floats
    sigma: Floats
    click_rate: Floats
    rate: Floats
    close: Floats
    offer: Ints
    base: Ints
    theme: Ints
    click_share: Floats
    rate_share: Floats
    useful: NDArray[np.bool_]
    theme_keys: Keys
    hours: Floats
    weekdays: Floats
    click_bottom: float
    click_power: float
    invalid: float
    seed: int


def draw_world(known: Known, level: Level, seed: int) -> World:
    """Draw the truth about what a planner knows.

    Parameters
    ----------
    known : Known
        With one text or more, each once.
    level : Level
    seed : int
    """
    keywords = known.keywords
    own_texts = [k.text for k in keywords]
    own_keys = keys_of(own_texts)
    themes = _themes(own_texts)
    names = sorted(set(themes.values()))
    place = {name: at for at, name in enumerate(names)}
    theme_of_known = np.array([place[themes[t]] for t in own_texts], dtype=np.int64)
    theme_keys = keys_of([f"theme {n}" for n in names])
    searches = _searches(keywords, own_keys, theme_keys[theme_of_known], level, seed)
    wide = float(np.exp(level.wide * _one(seed, "wide")))
    terms = unknown_terms(own_texts, searches, seed, wide)

    texts = (*own_texts, *terms.texts)
    base = np.concatenate((np.arange(len(own_texts)), terms.base))
    key = keys_of(texts)
    theme = theme_of_known[base]
    mu, sigma, z_price = _prices(known, key, theme_keys[theme], base, level, seed)
    click_share, rate_share = _shares(key, terms.useful, len(own_texts), level, seed)
    rate, close, offer = _rates(known, terms.intent, key, theme_keys[theme], base, z_price,
                                level, seed)  # fmt: skip
    own_spread = level.click_rate[1]
    top = known.click_rate_top * np.exp(
        level.click_rate[0] * _one(seed, "click rate")
        + own_spread * normal(mixed(seed, "click rate", key)) - own_spread**2 / 2
    )  # fmt: skip
    low, high = level.click_power
    return World(
        texts=texts, n_known=len(own_texts), key=key,
        searches=np.concatenate((searches, terms.searches)),
        months=_months(known, theme_keys, theme_of_known, level, seed)[base],
        mu=mu, sigma=sigma, click_rate=np.minimum(top, _MOST_RATE),
        rate=rate, close=close, offer=offer, base=base, theme=theme,
        click_share=click_share, rate_share=rate_share,
        useful=np.concatenate((np.ones(len(own_texts), dtype=bool), terms.useful)),
        theme_keys=theme_keys, hours=_curves(known.hours, "hours", theme_keys, level, seed, 1.0),
        weekdays=_curves(known.weekdays, "weekdays", theme_keys, level, seed, 7.0),
        click_bottom=known.click_rate_bottom,
        click_power=low + (high - low) * _chance(seed, "click power"),
        invalid=level.invalid[0]
        + (level.invalid[1] - level.invalid[0]) * _chance(seed, "invalid"), seed=seed,
    )  # fmt: skip


def world_to_bytes(world: World) -> bytes:
    """Return a world as bytes, to be kept."""
    arrays = {f.name: getattr(world, f.name) for f in fields(World) if f.name != "texts"}
    out = io.BytesIO()
    texts = np.frombuffer(orjson.dumps(world.texts), dtype=np.uint8)
    np.savez_compressed(out, texts=texts, **arrays)
    return out.getvalue()


def world_from_bytes(content: bytes) -> World:
    """Return the world that `world_to_bytes` wrote."""
    with np.load(io.BytesIO(content), allow_pickle=False) as held:
        values = {name: held[name] for name in held.files}
    texts = tuple(orjson.loads(values.pop("texts").tobytes()))
    plain = {"n_known": int, "seed": int, "click_bottom": float, "click_power": float,
             "invalid": float}  # fmt: skip
    for name, kind in plain.items():
        values[name] = kind(values[name])
    return World(texts=texts, **values)


def _one(seed: int, name: str) -> float:
    return float(normal(mixed(seed, "world", name))[0])


def _chance(seed: int, name: str) -> float:
    return float(uniform(mixed(seed, "world", name))[0])


def _themes(texts: Sequence[str]) -> dict[str, str]:
    """Return the rarest word that each text shares with another; its rarest word, if none."""
    words = {text: set(text.split()) for text in texts}
    often = Counter(word for some in words.values() for word in some)
    return {
        text: min(some, key=lambda w: (often[w] < 2, often[w], w)) if some else ""
        for text, some in words.items()
    }


def _searches(
    keywords: Sequence[KnownKeyword], key: Keys, theme: Keys, level: Level, seed: int
) -> Floats:
    likely = np.array([k.searches for k in keywords])
    low = np.array([k.searches_low or 0 for k in keywords], dtype=np.float64)
    high = np.array([k.searches_high or 0 for k in keywords], dtype=np.float64)
    ranged = high > np.maximum(low, 1)
    # a range is as wide as 80 % of what it may be
    by_range = np.where(ranged, np.log(np.where(ranged, high / np.maximum(low, 1), 1)) / 2 / _P90,
                        0.0)  # fmt: skip
    least = level.searches[2]
    wider = by_range if level.own_by_range else np.maximum(by_range, least)
    own = np.where(ranged, wider, least)
    keys = mixed(seed, "searches", key)
    z = np.clip(stdtrit(4, uniform(keys)), -4, 4) if level.heavy_tails else normal(keys)
    common = level.searches[0] * _one(seed, "searches")
    of_theme = level.searches[1] * normal(mixed(seed, "searches", theme))
    dead = uniform(mixed(seed, "dead", key)) < level.dead
    true = likely * np.exp(common + of_theme + own * z - own**2 / 2)
    return np.asarray(np.where(dead, _DEAD, 1.0) * true)


def _prices(
    known: Known, key: Keys, theme: Keys, base: Ints, level: Level, seed: int
) -> tuple[Floats, Floats, Floats]:
    z_low, z_high = ndtri(known.low_percentile), ndtri(known.high_percentile)
    low = np.array([k.price_low or np.nan for k in known.keywords])
    high = np.array([k.price_high or np.nan for k in known.keywords])
    one = np.where(np.isnan(low), high, low)
    both = np.isfinite(low) & np.isfinite(high)
    width = np.where(both, np.log(high) - np.log(low), np.log(_ONE_PRICE_RATIO))
    sigma = np.maximum(_LEAST_WIDTH, width / (z_high - z_low))
    mu = np.where(both, np.log(low) - z_low * sigma, np.log(one))
    missing = np.isnan(mu)
    if missing.any() and not missing.all():
        mu[missing], sigma[missing] = np.median(mu[~missing]), np.median(sigma[~missing])
    mu, sigma = np.nan_to_num(mu)[base], sigma[base]
    z = normal(mixed(seed, "price", key))
    # a term made from a text pays about what that text pays, in a world without own prices
    mu = mu + level.price[0] * _one(seed, "price") + level.price[2] * z
    mu = mu + level.price[1] * normal(mixed(seed, "price", theme))
    sigma = sigma * np.exp(level.price_width * normal(mixed(seed, "price width", key)))
    return mu, sigma, z


def _rates(
    known: Known, intents: Sequence[str], key: Keys, theme: Keys, base: Ints, z_price: Floats,
    level: Level, seed: int,
) -> tuple[Floats, Floats, Ints]:  # fmt: skip
    """Return customers a click, customers per enquiry and the offer of every text."""
    n_own = len(known.keywords)
    offer = np.array([k.offer for k in known.keywords], dtype=np.int64)[base]
    likely = np.array([o.likely for o in known.offers])[offer]
    close = np.array([np.nan if o.close is None else o.close for o in known.offers])[offer]
    z = _one(seed, "rate")
    # two-sided: the low and high rates are the 10th and 90th percentile about the likely
    common = np.array([_two_sided(o.low, o.likely, o.high, z) for o in known.offers])[offer]

    said = [*(k.intent for k in known.keywords), *intents]
    factors = known.intent_rates
    by_base = np.array([factors.get(k.intent, 0.0) for k in known.keywords])[base]
    by_word = np.array([factors.get(i, 0.0) for i in said])
    true_intent = _true_intents(said, key, level, seed)
    wrong = np.array([factors.get(i, 0.0) for i in true_intent])
    if level.wide_rate is None:
        intent = by_base  # what a planner assumes of searches beside a keyword
    else:
        intent = np.where(np.arange(len(key)) < n_own, wrong, np.minimum(by_base, by_word))
    known_rate = np.array([np.nan if k.rate is None else k.rate for k in known.keywords])[base]
    mean = np.where(np.isnan(known_rate), likely * intent, known_rate)
    of_intent = {i: level.intent * _one(seed, f"intent {i}") for i in set(true_intent)}
    spread = np.array([of_intent[i] for i in true_intent])
    of_theme = level.theme_rate * normal(mixed(seed, "rate", theme))
    mean = np.clip(mean * common * np.exp(spread + of_theme - level.theme_rate**2 / 2), 0,
                   _MOST_RATE)  # fmt: skip
    # a text's own rate is Beta about that; dear texts may sell better
    r = level.price_correlation
    u = ndtr(r * z_price + np.sqrt(1 - r**2) * normal(mixed(seed, "own rate", key)))
    some = mean > 0
    rate = np.zeros(len(key))
    a, b = level.rate_weight * mean[some], level.rate_weight * (1 - mean[some])
    rate[some] = betaincinv(a, b, u[some])
    return rate, close, offer


def _two_sided(low: float, likely: float, high: float, z: float) -> float:
    if likely <= 0:
        return 0.0
    edge = high if z >= 0 else low
    return float((max(edge, 1e-9) / likely) ** (abs(z) / _P90))


def _true_intents(said: Sequence[str], key: Keys, level: Level, seed: int) -> list[str]:
    names = ("buy", "compare", "unknown", "learn", "firm")
    wrong = uniform(mixed(seed, "intent", key)) < level.wrong_intents
    other = (uniform(mixed(seed, "other intent", key)) * len(names)).astype(np.int64)
    return [names[o] if w else s for s, w, o in zip(said, wrong.tolist(), other.tolist(),
                                                    strict=True)]  # fmt: skip


def _shares(
    key: Keys, useful: NDArray[np.bool_], n_own: int, level: Level, seed: int
) -> tuple[Floats, Floats]:
    """Return what is left of click rate and conversion beside a keyword's own text."""
    n = len(key)
    serves = np.concatenate((np.ones(n_own), useful.astype(np.float64)))
    if level.wide_clicks is None or level.wide_rate is None:
        bought = np.concatenate((np.ones(n_own), useful / _USEFUL))
        clicks = np.tile(np.array(_PLANNED_CLICKS), (n, 1))
        return clicks, bought[:, None] * np.array(_PLANNED_RATE)
    shares = [
        low + (high - low) * uniform(mixed(seed, name, key))
        for name, (low, high) in (("wide clicks", level.wide_clicks), ("wide", level.wide_rate))
    ]
    clicks = np.column_stack((np.ones(n), shares[0], shares[0]))
    sells = serves * shares[1]
    return clicks, np.column_stack((serves, sells, sells))


def _months(known: Known, themes: Keys, theme: Ints, level: Level, seed: int) -> Floats:
    own = np.array([known.season if k.months is None else k.months for k in known.keywords])
    noise = np.exp(level.season * normal(mixed(seed, "months", themes[:, None], np.arange(12))))
    index = own * noise[theme]
    mean = index.mean(axis=1, keepdims=True)
    return np.asarray(np.divide(index, mean, out=np.ones_like(index), where=mean > 0))


def _curves(
    curve: Sequence[float], name: str, themes: Keys, level: Level, seed: int, total: float
) -> Floats:
    held = np.array(curve, dtype=np.float64)
    noise = normal(mixed(seed, name, themes[:, None], np.arange(len(held))))
    found = held * np.exp(level.season * noise)
    return np.asarray(found / found.sum(axis=1, keepdims=True) * total)
