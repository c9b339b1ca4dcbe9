create table study (
  id uuid primary key,
  version bigint not null check (version > 0),
  -- revision of the last change kept; every change adds one
  revision bigint not null check (revision > 0),
  title text not null check (btrim(title) <> ''),
  questions text not null,
  lead text not null,
  currency text not null check (currency ~ '^[A-Z]{3}$'),
  price_year integer not null check (price_year between 1900 and 2100),
  volume_per_year integer not null check (volume_per_year > 0),
  production_years integer not null check (production_years between 1 and 50),
  region text not null check (btrim(region) <> ''),
  fasteners_in boolean not null,
  assemblies_as text not null check (assemblies_as in ('pieces', 'one'))
);

create table vehicle (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  maker text not null,
  role text not null check (role in ('subject', 'earlier', 'competitor')),
  model_year integer check (model_year between 1900 and 2100),
  built_on date,
  acquired_on date,
  notes text not null,
  unique (id, study_id)
);
create index vehicle_of_study on vehicle (study_id);

create table subsystem (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  parent_id uuid,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  unique (id, study_id),
  foreign key (parent_id, study_id) references subsystem (id, study_id) deferrable initially deferred,
  check (parent_id <> id)
);
create index subsystem_of_study on subsystem (study_id);
create index subsystem_of_parent on subsystem (parent_id);

create table piece (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  vehicle_id uuid not null,
  subsystem_id uuid,
  parent_id uuid,
  sequence integer not null check (sequence >= 0),
  tag text not null,
  name text not null check (btrim(name) <> ''),
  function text not null,
  quantity integer not null check (quantity > 0),
  hand text not null check (hand in ('none', 'left', 'right', 'mirrored')),
  material_id text,
  material_detail text not null,
  process_id text,
  process_detail text not null,
  mass_each_kg double precision check (mass_each_kg > 0 and mass_each_kg < 'infinity'),
  mass_u_kg double precision check (mass_u_kg > 0 and mass_u_kg < 'infinity'),
  mass_evidence text check (mass_evidence in ('M', 'C', 'S', 'P', 'T', 'R', 'I', '?')),
  mass_typed text,
  length_m double precision check (length_m > 0 and length_m < 'infinity'),
  width_m double precision check (width_m > 0 and width_m < 'infinity'),
  height_m double precision check (height_m > 0 and height_m < 'infinity'),
  wall_thickness_m double precision check (wall_thickness_m > 0 and wall_thickness_m < 'infinity'),
  run_length_m double precision check (run_length_m > 0 and run_length_m < 'infinity'),
  location text not null,
  markings text not null,
  supplier text not null,
  opened text check (opened in ('opened', 'closed')),
  closed_reason text not null,
  damage text not null,
  notes text not null,
  bought_price numeric(13, 4) check (bought_price >= 0 and bought_price <> 'NaN'),
  bought_currency text check (bought_currency ~ '^[A-Z]{3}$'),
  bought_price_year integer check (bought_price_year between 1900 and 2100),
  bought_volume_per_year integer check (bought_volume_per_year > 0),
  bought_region text,
  unique (id, study_id),
  unique (id, vehicle_id),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (subsystem_id, study_id) references subsystem (id, study_id) deferrable initially deferred,
  -- a piece inside another is on the same vehicle
  foreign key (parent_id, vehicle_id) references piece (id, vehicle_id) deferrable initially deferred,
  check ((parent_id is null) <> (subsystem_id is null)),
  check (parent_id <> id),
  check (num_nulls(mass_each_kg, mass_u_kg, mass_evidence) in (0, 3)),
  check (num_nulls(length_m, width_m, height_m) in (0, 3)),
  check (num_nulls(bought_price, bought_currency, bought_price_year, bought_volume_per_year, bought_region) in (0, 5)),
  check (opened is distinct from 'closed' or btrim(closed_reason) <> '')
);
create index piece_of_study on piece (study_id);
create index piece_of_parent on piece (parent_id);
create index piece_of_vehicle on piece (vehicle_id);
create index piece_of_subsystem on piece (subsystem_id);

create table fastener_set (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  count integer not null check (count > 0),
  kind text not null check (kind in ('bolt', 'nut', 'washer', 'stud', 'screw', 'rivet', 'clip', 'push pin', 'cable tie')),
  thread_m double precision check (thread_m > 0 and thread_m < 'infinity'),
  pitch_m double precision check (pitch_m > 0 and pitch_m < 'infinity'),
  length_m double precision check (length_m > 0 and length_m < 'infinity'),
  drive text not null,
  grade text not null,
  direction text check (direction in ('+x', '-x', '+y', '-y', '+z', '-z')),
  mass_each_kg double precision check (mass_each_kg > 0 and mass_each_kg < 'infinity'),
  mass_u_kg double precision check (mass_u_kg > 0 and mass_u_kg < 'infinity'),
  mass_evidence text check (mass_evidence in ('M', 'C', 'S', 'P', 'T', 'R', 'I', '?')),
  mass_typed text,
  note text not null,
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred,
  check (num_nulls(mass_each_kg, mass_u_kg, mass_evidence) in (0, 3))
);
create index fastener_set_of_study on fastener_set (study_id);
create index fastener_set_of_piece on fastener_set (piece_id);

create table joint_set (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  count integer not null check (count > 0),
  kind text not null check (kind in (
    'spot weld', 'self-piercing rivet', 'flow-drill screw', 'clinch', 'press fit', 'snap fit',
    'adhesive bead', 'seam weld', 'laser weld', 'friction-stir weld', 'braze', 'solder', 'hem')),
  length_each_m double precision check (length_each_m > 0 and length_each_m < 'infinity'),
  note text not null,
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);
create index joint_set_of_study on joint_set (study_id);
create index joint_set_of_piece on joint_set (piece_id);

-- the ledger: every change ever kept, with what undoes it
create table change (
  id uuid primary key,
  study_id uuid not null references study,
  revision bigint not null check (revision > 0),
  made_at timestamptz not null default now(),
  made_by text not null,
  device text not null,
  -- SHA-256 of the ops as sent: tells a repeated change from another one under the same id
  digest bytea not null check (length(digest) = 32),
  ops jsonb not null,
  inverse jsonb not null,
  unique (study_id, revision)
);
