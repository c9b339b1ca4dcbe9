alter table study add column choice_weights jsonb not null
  default '{"requests": 30, "gap": 25, "novelty": 20, "wait": 10, "price": 15}' check (jsonb_typeof(choice_weights) = 'object');
alter table study alter column choice_weights drop default;
alter table study add column calendar jsonb not null
  default '{"startsOn": null, "weekdays": [1, 2, 3, 4, 5], "opensMin": 480, "dayMin": 480, "daysOff": []}' check (jsonb_typeof(calendar) = 'object');
alter table study alter column calendar drop default;

-- the passport of the sample and its headline figures
alter table vehicle
  add column generation text not null default '',
  add column predecessor_id uuid check (predecessor_id <> id),
  add column variant text not null default '',
  add column vehicle_class text,
  add column drive text,
  add column expected_on date,
  add column odometer_m double precision check (odometer_m >= 0 and odometer_m < 'infinity'),
  add column obtained text not null default '',
  add column price numeric check (price >= 0 and price < 1000000000 and scale(price) <= 4),
  add column price_currency text check (price_currency ~ '^[A-Z]{3}$'),
  add column price_year integer check (price_year between 1900 and 2100),
  add column changes text not null default '',
  add column wear text not null default '',
  add column kerb_mass_kg double precision check (kerb_mass_kg > 0 and kerb_mass_kg < 'infinity'),
  add column power_w double precision check (power_w > 0 and power_w < 'infinity'),
  add column battery_j double precision check (battery_j > 0 and battery_j < 'infinity'),
  add column voltage_v double precision check (voltage_v > 0 and voltage_v < 'infinity'),
  add column range_m double precision check (range_m > 0 and range_m < 'infinity'),
  add column consumption_j_per_m double precision check (consumption_j_per_m > 0 and consumption_j_per_m < 'infinity'),
  add column turning_circle_m double precision check (turning_circle_m > 0 and turning_circle_m < 'infinity'),
  add column wheelbase_m double precision check (wheelbase_m > 0 and wheelbase_m < 'infinity'),
  add column track_m double precision check (track_m > 0 and track_m < 'infinity'),
  add column known jsonb not null default '{}' check (jsonb_typeof(known) = 'object'),
  add check (num_nonnulls(price, price_currency, price_year) in (0, 3));
alter table vehicle
  alter column generation drop default,
  alter column variant drop default,
  alter column obtained drop default,
  alter column changes drop default,
  alter column wear drop default,
  alter column known drop default;

-- where the centre of mass of a piece is on the vehicle
alter table piece
  add column x_m double precision check (x_m between -100 and 100),
  add column y_m double precision check (y_m between -100 and 100),
  add column z_m double precision check (z_m between -100 and 100),
  add check (num_nonnulls(x_m, y_m, z_m) in (0, 3));

create table candidate (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  maker text not null,
  model_year integer check (model_year between 1900 and 2100),
  vehicle_class text,
  drive text,
  voltage_v double precision check (voltage_v > 0 and voltage_v < 'infinity'),
  novelty double precision check (novelty between 0 and 10),
  novelty_note text not null,
  wait_days integer check (wait_days >= 0),
  price numeric check (price >= 0 and price < 1000000000 and scale(price) <= 4),
  price_currency text check (price_currency ~ '^[A-Z]{3}$'),
  price_year integer check (price_year between 1900 and 2100),
  note text not null,
  vehicle_id uuid,
  check (num_nonnulls(price, price_currency, price_year) in (0, 3)),
  unique (id, study_id),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred
);

create table request (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  candidate_id uuid not null,
  sequence integer not null check (sequence >= 0),
  who text not null check (btrim(who) <> ''),
  strength integer not null check (strength between 1 and 5),
  asks text not null,
  foreign key (candidate_id, study_id) references candidate (id, study_id) deferrable initially deferred
);

create table claim (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sequence integer not null check (sequence >= 0),
  vehicle_id uuid,
  statement text not null check (btrim(statement) <> ''),
  source_kind text not null,
  source text not null,
  test text not null,
  state text not null,
  outcome text not null,
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred
);

create table scope (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  vehicle_id uuid not null,
  subsystem_id uuid not null,
  depth text not null check (depth in ('closed', 'module', 'pieces', 'cut')),
  reason text not null,
  expected_pieces integer check (expected_pieces >= 0),
  expected_s double precision check (expected_s > 0 and expected_s < 'infinity'),
  check (depth <> 'closed' or btrim(reason) <> ''),
  unique (vehicle_id, subsystem_id) deferrable initially deferred,
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (subsystem_id, study_id) references subsystem (id, study_id) deferrable initially deferred
);

create table resource (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sequence integer not null check (sequence >= 0),
  kind text not null check (kind in ('person', 'bay', 'lift')),
  name text not null check (btrim(name) <> ''),
  person_id uuid references person deferrable initially deferred,
  skills jsonb not null check (jsonb_typeof(skills) = 'array'),
  days_off jsonb not null check (jsonb_typeof(days_off) = 'array'),
  rated_kg double precision check (rated_kg > 0 and rated_kg < 'infinity'),
  note text not null,
  unique (id, study_id)
);

create table rig (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  made_for text not null,
  hazards jsonb not null check (jsonb_typeof(hazards) = 'array'),
  design text not null,
  time_to_make_s double precision check (time_to_make_s > 0 and time_to_make_s < 'infinity'),
  rated_n double precision check (rated_n > 0 and rated_n < 'infinity'),
  factor double precision not null check (factor between 1 and 20),
  went_wrong text not null,
  state text not null check (state in ('idea', 'made', 'scrapped')),
  copies integer not null check (copies >= 0),
  unique (id, study_id)
);

create table work_package (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  vehicle_id uuid,
  subsystem_id uuid,
  least_s double precision check (least_s > 0 and least_s < 'infinity'),
  likely_s double precision check (likely_s > 0 and likely_s < 'infinity'),
  most_s double precision check (most_s > 0 and most_s < 'infinity'),
  skill text not null,
  people integer not null check (people >= 0),
  who jsonb not null check (jsonb_typeof(who) = 'array'),
  place text not null check (place in ('none', 'bay', 'lift')),
  rig_id uuid,
  hazards jsonb not null check (jsonb_typeof(hazards) = 'array'),
  after jsonb not null check (jsonb_typeof(after) = 'array'),
  pinned_on date,
  not_before date,
  started_on date,
  done_on date,
  worked_s double precision check (worked_s >= 0 and worked_s < 'infinity'),
  remaining_s double precision check (remaining_s >= 0 and remaining_s < 'infinity'),
  -- workshop time, of no zone
  agreed_from text check (agreed_from ~ '^\d{4}-\d\d-\d\dT\d\d:\d\d$'),
  agreed_to text check (agreed_to ~ '^\d{4}-\d\d-\d\dT\d\d:\d\d$'),
  note text not null,
  check (num_nonnulls(least_s, likely_s, most_s) in (0, 3)),
  check (least_s <= likely_s and likely_s <= most_s),
  check (done_on is null or done_on >= started_on),
  check (num_nonnulls(agreed_from, agreed_to) in (0, 2)),
  unique (id, study_id),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (subsystem_id, study_id) references subsystem (id, study_id) deferrable initially deferred,
  foreign key (rig_id, study_id) references rig (id, study_id) deferrable initially deferred
);

create table gate (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  package_id uuid not null,
  sequence integer not null check (sequence >= 0),
  hazard text not null,
  asks text not null check (btrim(asks) <> ''),
  kind text not null check (kind in ('number', 'text', 'yes')),
  unit text not null,
  low double precision,
  high double precision,
  value double precision,
  said text not null,
  check (low <= high),
  foreign key (package_id, study_id) references work_package (id, study_id) deferrable initially deferred
);

create table hoist (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  vehicle_id uuid not null unique deferrable initially deferred,
  resource_id uuid,
  mass_kg double precision not null check (mass_kg > 0 and mass_kg < 'infinity'),
  mass_u_kg double precision not null check (mass_u_kg > 0 and mass_u_kg < 'infinity'),
  x_m double precision not null check (x_m between -100 and 100),
  y_m double precision not null check (y_m between -100 and 100),
  place_u_m double precision not null check (place_u_m > 0 and place_u_m <= 10),
  pads jsonb not null check (jsonb_typeof(pads) = 'array' and jsonb_array_length(pads) >= 3),
  margin_m double precision not null check (margin_m between 0 and 5),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (resource_id, study_id) references resource (id, study_id) deferrable initially deferred
);

create table unload (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  vehicle_id uuid not null,
  sequence integer not null check (sequence >= 0),
  label text not null check (btrim(label) <> ''),
  piece_id uuid,
  mass_kg double precision check (mass_kg > 0 and mass_kg < 'infinity'),
  mass_u_kg double precision check (mass_u_kg > 0 and mass_u_kg < 'infinity'),
  x_m double precision check (x_m between -100 and 100),
  y_m double precision check (y_m between -100 and 100),
  check (num_nonnulls(mass_kg, mass_u_kg) in (0, 2)),
  check (num_nonnulls(x_m, y_m) in (0, 2)),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred,
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

-- a picture shows a piece or a rig
alter table picture alter column piece_id drop not null;
alter table picture add column rig_id uuid;
alter table picture add check (num_nonnulls(piece_id, rig_id) = 1);
alter table picture add foreign key (rig_id, study_id) references rig (id, study_id) deferrable initially deferred;

alter table question drop constraint question_about_kind_check;
alter table question add constraint question_about_kind_check
  check (about_kind in ('study', 'vehicle', 'subsystem', 'piece', 'fasteners', 'joints', 'candidate', 'claim', 'package', 'rig'));

create index candidate_of_study on candidate (study_id);
create index request_of_study on request (study_id);
create index request_of_candidate on request (candidate_id);
create index claim_of_study on claim (study_id);
create index scope_of_study on scope (study_id);
create index resource_of_study on resource (study_id);
create index rig_of_study on rig (study_id);
create index work_package_of_study on work_package (study_id);
create index gate_of_study on gate (study_id);
create index gate_of_package on gate (package_id);
create index unload_of_study on unload (study_id);
create index unload_of_piece on unload (piece_id) where piece_id is not null;
create index picture_of_rig on picture (rig_id) where rig_id is not null;
