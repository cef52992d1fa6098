"""The practice market: a simulated ad platform with its own data and its own arithmetic.

It knows nothing of how a plan is made: of the core it uses only how texts are compared.
Whatever it says is made up.
"""
