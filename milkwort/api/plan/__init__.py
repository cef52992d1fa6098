"""Open plans: held, changed, answered; their routes, files and samples."""
