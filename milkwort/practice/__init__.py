"""The loop without a screen: plan, hand over to the practice market, live a month, again.

The only place that knows both sides; what is planned here never sees the hidden truth.
"""
