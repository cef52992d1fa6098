"""Trades the almanac knows, each with the words it is asked by."""

from __future__ import annotations

__all__ = ["CATEGORIES"]

CATEGORIES: dict[str, tuple[str, ...]] = {
    "Building and repair": ("window repair", "roof repair", "plastering", "bathroom fitting"),
    "Carpentry and furniture": ("fitted wardrobe", "oak table", "chair repair", "bookcase"),
    "Crafts and hobbies": ("pottery kit", "knitting wool", "candle making", "bookbinding"),
    "Events": ("wedding flowers", "party catering", "marquee", "photo booth"),
    "Food and kitchen": ("fermentation crock", "bread oven", "spice mill", "preserving jar"),
    "Garden": ("hedge cutting", "garden design", "compost", "fruit tree"),
    "Health and care": ("back pain clinic", "home care", "hearing test", "foot care"),
    "Law and money": ("will writing", "bookkeeping", "tax return", "lease advice"),
    "Lessons": ("piano lessons", "driving lessons", "maths tutor", "sewing class"),
    "Rabbit hutches": ("rabbit hutch", "hutch cover", "rabbit run", "hutch heater"),
    "Software": ("rota planner", "invoice app", "booking system", "stock control"),
    "Vehicles": ("brake repair", "bike service", "van hire", "tyre fitting"),
}
