"""Every tolerance of the fit, each with its reason.

Shares are of the bound unless said otherwise.
"""

from __future__ import annotations

__all__ = [
    "CLOSE", "CURVE_CLOSE", "CURVE_FAR", "ENOUGH", "EXACT_NEAR", "EXACT_ROUNDING", "FINISH_CLOSE",
    "FINISH_NEAR", "LIMITED_PROVEN", "MANY_CHOICES", "MANY_LIMITED", "NOISE", "PROVEN",
    "REDUCED_NEAR", "ROUNDING", "SOLVER_SLACK", "STATED", "VERY_MANY_CHOICES", "WELL_CLOSE",
]  # fmt: skip

ROUNDING = 1e-9
"""Sums of some thousand floats, and prices over steps, differ so far from what they mean."""
EXACT_ROUNDING = 1e-12
"""The same for sums of a handful, where a step more would be taken for one that fits. All limits
of money are so much wider than said: what fills one to the penny fits, however it was added up."""

CLOSE = 5e-4
"""Under limits, so near is near enough: a twentieth of a customer in a hundred."""
CURVE_CLOSE = 5e-3
"""The same for one of many points of a curve, whose gap is stated."""
CURVE_FAR = 2e-2
"""Such a point is finished all the same where its gap is this wide: it would show."""
FINISH_CLOSE = 2e-4
"""Without limits a nearer answer to many keywords needs no exact finish: the wanted 0.2 % is ten
times that. Of few every gap is closed."""
FINISH_NEAR = 1e-3
"""A finish by the solver ends here; single moves close the rest."""
MANY_CHOICES = 2000
"""Fewer are combined until no better answer exists; of more, keywords are settled one by one."""
VERY_MANY_CHOICES = 100_000
"""Past this, some two thousand keywords, a gap that may be stated is: to combine the bids of ten
thousand takes a minute, and mends a thousandth."""
STATED = 1.8e-3
"""A wider gap must be closed, or shown to be the bound's: 0.2 % is promised."""
WELL_CLOSE = 0.1
"""So much nearer than asked for, no other set of keywords is tried."""

PROVEN = 1e-6
"""A gap that is called none: a customer in a million."""
LIMITED_PROVEN = 2e-6
"""The same under limits, where two relaxations are compared."""
ENOUGH = 1e-7
"""Where single moves end: none of them would be seen."""
NOISE = 1e-4
"""Under this share of `ENOUGH`, two relaxations differ by rounding alone."""
EXACT_NEAR = 1e-5
"""Where combining the bids of many keywords ends."""
REDUCED_NEAR = 1e-6
"""Where the solver ends on what reduction left."""
SOLVER_SLACK = 1e-6
"""The solver may pass a limit by so much money; where it does, it is asked again with the limits
drawn in by that. Not at once: spots' round sums may fill a round purse to the penny."""
MANY_LIMITED = 2000
"""Under limits, where many fits are wanted at once, those of more keywords than this only state
their gap."""
