-- what the declarations of the kinds of record say and the tables did not hold yet: references that nothing else kept,
-- and words of a choice
alter table reading add unique (id, study_id);
alter table vehicle add foreign key (predecessor_id, study_id) references vehicle (id, study_id) deferrable initially deferred;
alter table identification add foreign key (reading_id, study_id) references reading (id, study_id) deferrable initially deferred;
alter table section add foreign key (scan_id, study_id) references scan (id, study_id) deferrable initially deferred;

alter table vehicle
  add check (vehicle_class in ('small car', 'medium car', 'large car', 'off-road car', 'people carrier', 'small van', 'medium van',
    'large van', 'pick-up', 'light truck')),
  add check (drive in ('front wheels', 'rear wheels', 'all wheels'));
alter table candidate
  add check (vehicle_class in ('small car', 'medium car', 'large car', 'off-road car', 'people carrier', 'small van', 'medium van',
    'large van', 'pick-up', 'light truck')),
  add check (drive in ('front wheels', 'rear wheels', 'all wheels'));
alter table claim
  add check (source_kind in ('the maker', 'a supplier', 'a press report', 'an owner', 'an authority', 'an earlier study')),
  add check (state in ('to test', 'borne out', 'partly borne out', 'refuted', 'cannot be tested'));
alter table component_set
  add check (component_class in ('controller', 'memory', 'integrated circuit', 'power switch', 'gate driver', 'shunt', 'transformer',
    'inductor', 'capacitor', 'resistor', 'diode', 'relay', 'fuse', 'sensor', 'oscillator', 'lamp', 'board connector', 'test point'));
alter table connection
  add check (lock in ('latch', 'lever lock', 'secondary lock', 'bolted', 'screw collar', 'quick coupling', 'clamp'));
alter table fluid add check (mass_evidence in ('M', 'C', 'S', 'P', 'T', 'R', 'I', '?'));
alter table reading add check (quantity in ('mass', 'length', 'torque', 'count', 'element fractions'));

-- whoever takes off what these refer to looks for them
create index on identification (reading_id) where reading_id is not null;
create index on section (scan_id) where scan_id is not null;
