"""HTTP: one router per noun, inputs apart from responses, one map from errors to problems."""
