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
