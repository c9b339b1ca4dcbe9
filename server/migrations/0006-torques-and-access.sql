-- how a fastener set was tightened and let go, how it is reached and with what, and whether it was removed at all
alter table fastener_set
  add column tightening_nm double precision check (tightening_nm > 0 and tightening_nm < 'infinity'),
  add column breakaway_nm double precision check (breakaway_nm > 0 and breakaway_nm < 'infinity'),
  add column access text check (access in ('free', 'from below', 'blind', 'through a hole', 'behind a cover', 'with an extension')),
  add column tool text not null default '',
  add column removed boolean;
alter table fastener_set alter column tool drop default;

-- outer diameter of what runs: a hose, a tube, a cable
alter table piece
  add column run_diameter_m double precision check (run_diameter_m > 0 and run_diameter_m < 'infinity');

-- by how much a scanner may lay a surface too far out or in; null: not said
alter table scan
  add column offset_m double precision check (offset_m > 0 and offset_m < 'infinity');

-- hazards that packages of a subsystem have until somebody says otherwise
alter table study add column usual_hazards jsonb not null default '[]' check (jsonb_typeof(usual_hazards) = 'array');
update study set usual_hazards = '[
  {"words": ["battery", "cell", "pack"], "hazards": ["high-voltage", "open-cells", "lifting"]},
  {"words": ["charg", "charger", "inverter", "high-voltage"], "hazards": ["high-voltage", "capacitors"]},
  {"words": ["drive unit", "motor", "gearbox"], "hazards": ["high-voltage", "magnets", "lifting", "oil"]},
  {"words": ["heat", "cooling", "climate", "thermal"], "hazards": ["refrigerant", "coolant"]},
  {"words": ["seat", "instrument panel", "steering", "airbag", "restraint"], "hazards": ["pyrotechnic"]},
  {"words": ["axle", "suspension", "strut", "spring", "damper"], "hazards": ["springs", "lifting", "hoist"]},
  {"words": ["fuel", "tank"], "hazards": ["fuel"]},
  {"words": ["insulation", "trim", "load space"], "hazards": ["fibres"]},
  {"words": ["body", "structure", "door", "floor"], "hazards": ["sharp-edges"]},
  {"words": ["brake"], "hazards": ["fibres", "oil"]}
]';
alter table study alter column usual_hazards drop default;

-- the study whose archive this one was brought in from, while that one was here too
alter table study add column copy_of uuid;

-- a step on the lift may be all that is recorded of a subsystem
alter table unload add column subsystem_id uuid;
alter table unload add check (num_nonnulls(piece_id, subsystem_id) <= 1);
alter table unload add foreign key (subsystem_id, study_id) references subsystem (id, study_id) deferrable initially deferred;
