-- what of a removal went on from the one before it and was not said of it; and where a part is by now
alter table removal_step add column carried jsonb not null default '[]' check (jsonb_typeof(carried) = 'array');
alter table part add column state text check (state in ('fitted', 'removed', 'missing', 'destroyed', 'returned'));
