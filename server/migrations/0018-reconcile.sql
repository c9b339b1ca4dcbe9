-- what was explained, signed off, checked and drawn to be counted again; components of a board counted as a whole
create table explanation (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  says text not null check (btrim(says) <> ''),
  reason text not null check (btrim(reason) <> ''),
  by text not null check (btrim(by) <> ''),
  at text not null,
  findings jsonb not null check (jsonb_typeof(findings) = 'array'),
  unique (id, study_id)
);

create index explanation_of_study on explanation (study_id);

create table sign_off (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  vehicle_id uuid not null,
  subsystem_id uuid not null,
  by text not null check (btrim(by) <> ''),
  at text not null,
  revision integer not null check (revision >= 0),
  parts integer not null check (parts >= 0),
  open integer not null check (open >= 0),
  explained integer not null check (explained >= 0),
  left_open text not null,
  unique (id, study_id),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (subsystem_id, study_id) references subsystem (id, study_id) deferrable initially deferred
);

create index sign_off_of_study on sign_off (study_id);
create index on sign_off (vehicle_id);
create index on sign_off (subsystem_id);

create table check_reading (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  instrument text not null check (btrim(instrument) <> ''),
  serial text not null check (btrim(serial) <> ''),
  quantity text not null check (quantity in ('mass', 'length', 'torque')),
  nominal double precision not null check (nominal > 0 and nominal < 'infinity'),
  nominal_u double precision not null check (nominal_u >= 0 and nominal_u < 'infinity'),
  value double precision not null check (value >= -1000000 and value < 'infinity'),
  taken_at text not null,
  taken_by text not null,
  note text not null,
  unique (id, study_id)
);

create index check_reading_of_study on check_reading (study_id);

create table recount_sample (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sampled_by text not null check (sampled_by in ('at random', 'by risk')),
  assurance_fraction double precision not null check (assurance_fraction > 0 and assurance_fraction < 'infinity'),
  wrong_fraction double precision not null check (wrong_fraction > 0 and wrong_fraction < 'infinity'),
  allowed integer not null check (allowed >= 0),
  seed integer not null check (seed >= 0),
  out_of integer not null check (out_of >= 0),
  sets jsonb not null check (jsonb_typeof(sets) = 'array'),
  drawn_at text not null,
  drawn_by text not null,
  unique (id, study_id)
);

create index recount_sample_of_study on recount_sample (study_id);

alter table board
  add column components_counted integer check (components_counted >= 0);
