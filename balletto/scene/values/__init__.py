"""Values: what any number, colour or point of a scene may be. Plain, keyed (`tracks`), following
another (`ties`); how it is measured, said and typed (`measures`, `quantities`); what it is
called."""
