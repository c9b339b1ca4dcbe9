alter table piece
  add column closed_risk text not null default '',
  add column seen_outside text not null default '',
  add column damage_from text check (damage_from in ('was there', 'taking apart'));
alter table piece
  alter column closed_risk drop default,
  alter column seen_outside drop default;

alter table gate
  add column answered_by text not null default '',
  add column answered_at text;
alter table gate alter column answered_by drop default;

create table connection (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  count integer not null check (count between 1 and 100000),
  kind text not null check (kind in ('connector', 'cable', 'hose', 'pipe')),
  material_id text,
  poles integer check (poles > 0),
  cross_section_m2 double precision check (cross_section_m2 > 0 and cross_section_m2 < 'infinity'),
  shielded boolean,
  inner_m double precision check (inner_m > 0 and inner_m < 'infinity'),
  length_each_m double precision check (length_each_m > 0 and length_each_m < 'infinity'),
  fluid text not null,
  lock text,
  release text check (release in ('easy', 'firm', 'hard')),
  note text not null,
  known jsonb not null check (jsonb_typeof(known) = 'object'),
  unique (id, study_id),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

create table component_set (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  count integer not null check (count between 1 and 100000),
  component_class text not null,
  fitted boolean not null,
  marking text not null,
  note text not null,
  known jsonb not null check (jsonb_typeof(known) = 'object'),
  unique (id, study_id),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

create table board (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null unique deferrable initially deferred,
  length_m double precision check (length_m > 0 and length_m < 'infinity'),
  width_m double precision check (width_m > 0 and width_m < 'infinity'),
  sides integer check (sides in (1, 2)),
  layers integer check (layers > 0),
  note text not null,
  known jsonb not null check (jsonb_typeof(known) = 'object'),
  check (num_nonnulls(length_m, width_m) in (0, 2)),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

create table fluid (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  mass_each_kg double precision check (mass_each_kg > 0 and mass_each_kg < 'infinity'),
  mass_u_kg double precision check (mass_u_kg > 0 and mass_u_kg < 'infinity'),
  mass_evidence text,
  mass_typed text,
  volume_m3 double precision check (volume_m3 > 0 and volume_m3 < 'infinity'),
  drained boolean not null,
  note text not null,
  known jsonb not null check (jsonb_typeof(known) = 'object'),
  check (num_nonnulls(mass_each_kg, mass_u_kg, mass_evidence) in (0, 3)),
  unique (id, study_id),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

create table bench_session (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  package_id uuid,
  vehicle_id uuid not null,
  subsystem_id uuid,
  remover text not null,
  recorder text not null,
  opened_at text not null,
  closed_at text,
  pause_after_s double precision not null check (pause_after_s between 30 and 14400),
  acknowledged jsonb not null check (jsonb_typeof(acknowledged) = 'array'),
  waived jsonb not null check (jsonb_typeof(waived) = 'array'),
  note text not null,
  check (closed_at >= opened_at),
  unique (id, study_id),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (subsystem_id, study_id) references subsystem (id, study_id) deferrable initially deferred,
  foreign key (package_id, study_id) references work_package (id, study_id) deferrable initially deferred
);

create table removal_step (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  session_id uuid,
  vehicle_id uuid not null,
  sequence integer not null check (sequence >= 0),
  pieces jsonb not null check (jsonb_typeof(pieces) = 'array'),
  after jsonb not null check (jsonb_typeof(after) = 'array'),
  tool text not null,
  bit text not null,
  direction text check (direction in ('+x', '-x', '+y', '-y', '+z', '-z')),
  people integer check (people > 0),
  seen boolean,
  holds_itself boolean,
  one_way boolean,
  connections jsonb not null check (jsonb_typeof(connections) = 'array'),
  fluids jsonb not null check (jsonb_typeof(fluids) = 'array'),
  rig_id uuid,
  started_at text,
  ended_at text,
  worked_s double precision check (worked_s >= 0 and worked_s < 'infinity'),
  otherwise text not null,
  note text not null,
  check (ended_at >= started_at),
  unique (id, study_id),
  foreign key (session_id, study_id) references bench_session (id, study_id) deferrable initially deferred,
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (rig_id, study_id) references rig (id, study_id) deferrable initially deferred
);

create table reading (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  about_kind text not null check (about_kind in ('piece', 'fasteners', 'connection', 'fluid', 'step', 'gate')),
  about_id uuid not null,
  about_field text,
  quantity text not null,
  value double precision check (value > '-infinity' and value < 'infinity'),
  u double precision check (u > 0 and u < 'infinity'),
  tare double precision check (tare > '-infinity' and tare < 'infinity'),
  elements jsonb check (jsonb_typeof(elements) = 'object'),
  raw text not null check (btrim(raw) <> ''),
  instrument text not null,
  serial text not null,
  stable boolean check (stable),
  taken_at text not null,
  taken_by text not null,
  note text not null,
  check (num_nonnulls(value, elements) = 1)
);

create table recount (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  by text not null check (btrim(by) <> ''),
  counted_at text not null,
  counts jsonb not null check (jsonb_typeof(counts) = 'array'),
  others text not null,
  state text not null check (state in ('agrees', 'differs', 'settled')),
  settled text not null,
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

create table tag_sheet (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  vehicle_id uuid not null,
  subsystem_id uuid,
  package_id uuid,
  prefix text not null check (prefix ~ '^[A-Z0-9]{1,12}$'),
  first_number integer not null check (first_number > 0),
  count integer not null check (count between 1 and 2000),
  stock text not null,
  printed_at text not null,
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (subsystem_id, study_id) references subsystem (id, study_id) deferrable initially deferred,
  foreign key (package_id, study_id) references work_package (id, study_id) deferrable initially deferred
);

alter table question drop constraint question_about_kind_check;
alter table question add constraint question_about_kind_check check (about_kind in
  ('study', 'vehicle', 'subsystem', 'piece', 'fasteners', 'joints', 'connection', 'components', 'fluid', 'step', 'candidate', 'claim', 'package', 'rig'));

create index connection_of_study on connection (study_id);
create index connection_of_piece on connection (piece_id);
create index component_set_of_study on component_set (study_id);
create index component_set_of_piece on component_set (piece_id);
create index board_of_study on board (study_id);
create index fluid_of_study on fluid (study_id);
create index fluid_of_piece on fluid (piece_id);
create index bench_session_of_study on bench_session (study_id);
create index removal_step_of_study on removal_step (study_id);
create index reading_of_study on reading (study_id);
create index reading_of_record on reading (about_id);
create index recount_of_study on recount (study_id);
create index tag_sheet_of_study on tag_sheet (study_id);

-- addresses of the house's instruments: text over TCP
create table instrument (
  id uuid primary key,
  name text not null check (btrim(name) <> ''),
  kind text not null check (kind in ('scale', 'floor scale', 'caliper', 'alloy analyser', 'torque driver', 'mesh scanner', 'camera')),
  host text not null check (btrim(host) <> ''),
  port integer not null check (port between 1 and 65535),
  simulated boolean not null,
  unique (host, port)
);
