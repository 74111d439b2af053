"""The rules, a module for each subject. Each is found by its `@rule`."""
