"""The rules and arithmetic of the job. Pure: no files, clock, environment, network, database or printing."""
