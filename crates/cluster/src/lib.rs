//! PostgreSQL clusters of the project's own: a durable one to serve, throw-away ones for tests.
