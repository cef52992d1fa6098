"""Rules of where keywords come from: crossing, places, rivals, what ran before."""
