-- lines with their ends and routes, ways through parts, what-ifs of lines; what boards have to do, supply, cab heating; more of packs
create table port (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  part_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  x_m double precision check (x_m >= -100 and x_m < 'infinity'),
  y_m double precision check (y_m >= -100 and y_m < 'infinity'),
  z_m double precision check (z_m >= -100 and z_m < 'infinity'),
  note text not null,
  evidence jsonb not null check (jsonb_typeof(evidence) = 'object'),
  unique (id, study_id),
  foreign key (part_id, study_id) references part (id, study_id) deferrable initially deferred
);

create index port_of_study on port (study_id);
create index on port (part_id);

create table passage (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  part_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  from_port_id uuid,
  to_port_id uuid,
  does text not null check (does in ('resists', 'pumps')),
  pressure_pa double precision check (pressure_pa > 0 and pressure_pa < 'infinity'),
  flow_m3_per_s double precision check (flow_m3_per_s > 0 and flow_m3_per_s < 'infinity'),
  note text not null,
  evidence jsonb not null check (jsonb_typeof(evidence) = 'object'),
  unique (id, study_id),
  foreign key (part_id, study_id) references part (id, study_id) deferrable initially deferred,
  foreign key (from_port_id, study_id) references port (id, study_id) deferrable initially deferred,
  foreign key (to_port_id, study_id) references port (id, study_id) deferrable initially deferred
);

create index passage_of_study on passage (study_id);
create index on passage (part_id);
create index on passage (from_port_id) where from_port_id is not null;
create index on passage (to_port_id) where to_port_id is not null;

create table board_duty (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  part_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  is_what_if boolean not null,
  author text not null,
  reason text not null,
  shunt_ohm double precision check (shunt_ohm > 0 and shunt_ohm < 'infinity'),
  shunt_v double precision check (shunt_v >= -10000 and shunt_v < 'infinity'),
  phase_one_a double precision check (phase_one_a >= -100000 and phase_one_a < 'infinity'),
  phase_two_a double precision check (phase_two_a >= -100000 and phase_two_a < 'infinity'),
  capacitance_f double precision check (capacitance_f > 0 and capacitance_f < 'infinity'),
  store_v double precision check (store_v > 0 and store_v < 'infinity'),
  bleed_ohm double precision check (bleed_ohm > 0 and bleed_ohm < 'infinity'),
  safe_v double precision check (safe_v > 0 and safe_v < 'infinity'),
  loss_w double precision check (loss_w > 0 and loss_w < 'infinity'),
  sink_c double precision check (sink_c >= -273.15 and sink_c < 'infinity'),
  limit_c double precision check (limit_c >= -273.15 and limit_c < 'infinity'),
  via_count integer check (via_count > 0),
  via_outer_m double precision check (via_outer_m > 0 and via_outer_m < 'infinity'),
  via_wall_m double precision check (via_wall_m > 0 and via_wall_m < 'infinity'),
  via_length_m double precision check (via_length_m > 0 and via_length_m < 'infinity'),
  via_w_per_m_k double precision check (via_w_per_m_k > 0 and via_w_per_m_k < 'infinity'),
  compound_m double precision check (compound_m > 0 and compound_m < 'infinity'),
  compound_m2 double precision check (compound_m2 > 0 and compound_m2 < 'infinity'),
  compound_w_per_m_k double precision check (compound_w_per_m_k > 0 and compound_w_per_m_k < 'infinity'),
  plate_m double precision check (plate_m > 0 and plate_m < 'infinity'),
  plate_m2 double precision check (plate_m2 > 0 and plate_m2 < 'infinity'),
  plate_w_per_m_k double precision check (plate_w_per_m_k > 0 and plate_w_per_m_k < 'infinity'),
  plate_w_per_m2_k double precision check (plate_w_per_m2_k > 0 and plate_w_per_m2_k < 'infinity'),
  note text not null,
  evidence jsonb not null check (jsonb_typeof(evidence) = 'object'),
  check (not is_what_if or btrim(reason) <> ''),
  unique (id, study_id),
  foreign key (part_id, study_id) references part (id, study_id) deferrable initially deferred
);

create index board_duty_of_study on board_duty (study_id);
create index on board_duty (part_id);

create table supply (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  part_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  role text not null check (role in ('source', 'passes on', 'converts', 'load')),
  feed_id uuid,
  connection_id uuid,
  voltage_v double precision check (voltage_v > 0 and voltage_v < 'infinity'),
  current_a double precision check (current_a > 0 and current_a < 'infinity'),
  fuse_a double precision check (fuse_a > 0 and fuse_a < 'infinity'),
  efficiency double precision check (efficiency > 0 and efficiency < 'infinity'),
  note text not null,
  evidence jsonb not null check (jsonb_typeof(evidence) = 'object'),
  unique (id, study_id),
  foreign key (part_id, study_id) references part (id, study_id) deferrable initially deferred,
  foreign key (feed_id, study_id) references supply (id, study_id) deferrable initially deferred,
  foreign key (connection_id, study_id) references connection (id, study_id) deferrable initially deferred
);

create index supply_of_study on supply (study_id);
create index on supply (part_id);
create index on supply (feed_id) where feed_id is not null;
create index on supply (connection_id) where connection_id is not null;

create table heating (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  vehicle_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  is_what_if boolean not null,
  author text not null,
  reason text not null,
  heat_w double precision check (heat_w > 0 and heat_w < 'infinity'),
  speed_m_per_s double precision check (speed_m_per_s > 0 and speed_m_per_s < 'infinity'),
  heater_efficiency double precision check (heater_efficiency > 0 and heater_efficiency < 'infinity'),
  cop double precision check (cop > 0 and cop < 'infinity'),
  evaporates_c double precision check (evaporates_c >= -100 and evaporates_c < 'infinity'),
  condenses_c double precision check (condenses_c >= -100 and condenses_c < 'infinity'),
  of_ideal double precision check (of_ideal > 0 and of_ideal < 'infinity'),
  besides_w double precision check (besides_w > 0 and besides_w < 'infinity'),
  note text not null,
  evidence jsonb not null check (jsonb_typeof(evidence) = 'object'),
  check (not is_what_if or btrim(reason) <> ''),
  unique (id, study_id),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred
);

create index heating_of_study on heating (study_id);
create index on heating (vehicle_id);

create table run_case (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  vehicle_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  author text not null,
  reason text not null check (btrim(reason) <> ''),
  note text not null,
  unique (id, study_id),
  foreign key (vehicle_id, study_id) references vehicle (id, study_id) deferrable initially deferred
);

create index run_case_of_study on run_case (study_id);
create index on run_case (vehicle_id);

create table run_change (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  case_id uuid not null,
  sequence integer not null check (sequence >= 0),
  change text not null check (change in ('move a port', 'another length', 'leave out')),
  port_id uuid,
  x_m double precision check (x_m >= -100 and x_m < 'infinity'),
  y_m double precision check (y_m >= -100 and y_m < 'infinity'),
  z_m double precision check (z_m >= -100 and z_m < 'infinity'),
  connection_id uuid,
  length_each_m double precision check (length_each_m > 0 and length_each_m < 'infinity'),
  unique (id, study_id),
  foreign key (case_id, study_id) references run_case (id, study_id) deferrable initially deferred,
  foreign key (port_id, study_id) references port (id, study_id) deferrable initially deferred,
  foreign key (connection_id, study_id) references connection (id, study_id) deferrable initially deferred
);

create index run_change_of_study on run_change (study_id);
create index on run_change (case_id);
create index on run_change (port_id) where port_id is not null;
create index on run_change (connection_id) where connection_id is not null;

alter table connection
  add column from_port_id uuid,
  add column to_port_id uuid,
  add column route jsonb not null default '[]' check (jsonb_typeof(route) = 'array');
alter table connection add foreign key (from_port_id, study_id) references port (id, study_id) deferrable initially deferred;
create index on connection (from_port_id) where from_port_id is not null;
alter table connection add foreign key (to_port_id, study_id) references port (id, study_id) deferrable initially deferred;
create index on connection (to_port_id) where to_port_id is not null;
alter table board
  add column press_fit_pins integer check (press_fit_pins >= 0),
  add column soldered_pins integer check (soldered_pins >= 0),
  add column hand_joints integer check (hand_joints >= 0),
  add column potted boolean,
  add column coated boolean;
alter table pack
  add column roll_outer_m double precision check (roll_outer_m > 0 and roll_outer_m < 'infinity'),
  add column roll_core_m double precision check (roll_core_m > 0 and roll_core_m < 'infinity'),
  add column roll_layer_m double precision check (roll_layer_m > 0 and roll_layer_m < 'infinity'),
  add column cell_ohm double precision check (cell_ohm > 0 and cell_ohm < 'infinity'),
  add column cell_ohm_per_k double precision check (cell_ohm_per_k >= -0.1 and cell_ohm_per_k < 'infinity'),
  add column brick_a double precision check (brick_a > 0 and brick_a < 'infinity');
