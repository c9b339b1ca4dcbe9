-- the units in which a person reads figures; what is kept stays metric
alter table person add column units text not null default 'metric' check (units in ('metric', 'inch-pound'));
