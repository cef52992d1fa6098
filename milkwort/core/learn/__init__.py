"""What results say: exposure, evidence, corrections, the planner's own rules."""
