"""schemathesis's command line against the live app: every operation answers, none breaks."""
