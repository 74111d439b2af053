"""Numbers of the field: units, levels, timecode labels, sampled sound, radio."""
