"""Long work: a queue, a table of tasks with progress and result, and what each kind of task does."""
