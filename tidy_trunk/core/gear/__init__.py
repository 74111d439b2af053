"""What there is to plan with: devices, connectors and cables, contact by contact, and attenuators."""
