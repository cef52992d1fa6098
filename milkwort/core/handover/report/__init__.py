"""The client's sheet as data: what every file of it says, in the order a client reads."""
