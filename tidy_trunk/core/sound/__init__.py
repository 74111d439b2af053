"""What the cables of a plan bring: traces, levels, hum, and simulated sound."""
