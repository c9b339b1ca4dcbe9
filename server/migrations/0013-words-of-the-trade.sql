-- The trade's words: a piece is a part, a vehicle on the lift a lift set-up, what comes off it a lift step, a reading before work a
-- hold point; and how a mass is known stands where it stands for every other value. The ledger follows: see ledger-of-today.ts.

alter table piece rename to part;
alter table hoist rename to lift_set_up;
alter table unload rename to lift_step;
alter table gate rename to hold_point;
alter table gauge rename to gauge_study;
alter table pattern rename to hole_pattern;

alter table fastener_set rename piece_id to part_id;
alter table joint_set rename piece_id to part_id;
alter table connection rename piece_id to part_id;
alter table component_set rename piece_id to part_id;
alter table board rename piece_id to part_id;
alter table fluid rename piece_id to part_id;
alter table picture rename piece_id to part_id;
alter table presence rename piece_id to part_id;
alter table recount rename piece_id to part_id;
alter table lift_step rename piece_id to part_id;
alter table scan rename piece_id to part_id;
alter table identification rename piece_id to part_id;
alter table section rename piece_id to part_id;
alter table hole_pattern rename piece_id to part_id;
alter table removal_step rename pieces to parts;
alter table scope rename expected_pieces to expected_parts;
alter table work_package rename least_s to optimistic_s;
alter table work_package rename likely_s to most_likely_s;
alter table work_package rename most_s to pessimistic_s;

alter table part rename known to evidence;
alter table fastener_set rename known to evidence;
alter table joint_set rename known to evidence;
alter table vehicle rename known to evidence;
alter table connection rename known to evidence;
alter table component_set rename known to evidence;
alter table board rename known to evidence;
alter table fluid rename known to evidence;

do $$
declare was record;
begin
  for was in
    select c.relname as name, replace(replace(replace(replace(replace(replace(c.relname,
      'piece', 'part'), 'hoist', 'lift_set_up'), 'unload', 'lift_step'), 'gate', 'hold_point'), 'gauge', 'gauge_study'),
      'pattern', 'hole_pattern') as now
    from pg_class c join pg_namespace n on n.oid = c.relnamespace
    where n.nspname = current_schema() and c.relkind = 'i' and c.relname ~ '(piece|hoist|unload|^gate|gauge|pattern)'
  loop
    if was.name <> was.now then
      execute format('alter index %I rename to %I', was.name, was.now);
    end if;
  end loop;
end $$;

-- choices
alter table study drop constraint study_assemblies_as_check;
update study set assemblies_as = 'parts' where assemblies_as = 'pieces';
alter table study add check (assemblies_as in ('parts', 'one'));

alter table scope drop constraint scope_depth_check;
update scope set depth = 'parts' where depth = 'pieces';
alter table scope add check (depth in ('closed', 'module', 'parts', 'cut'));

alter table reading drop constraint reading_about_kind_check;
update reading set about_kind = case about_kind when 'piece' then 'part' else 'holdPoint' end where about_kind in ('piece', 'gate');
alter table reading add check (about_kind in ('part', 'fasteners', 'connection', 'fluid', 'step', 'holdPoint'));

alter table question drop constraint question_about_kind_check;
update question set about_kind = 'part' where about_kind = 'piece';
alter table question add constraint question_about_kind_check check (about_kind in
  ('study', 'vehicle', 'subsystem', 'part', 'fasteners', 'joints', 'connection', 'components', 'fluid', 'step', 'candidate', 'claim', 'package', 'rig'));

update change_row set entity = case entity
    when 'piece' then 'part' when 'hoist' then 'liftSetUp' when 'unload' then 'liftStep' when 'gate' then 'holdPoint'
    when 'gauge' then 'gaugeStudy' when 'pattern' then 'holePattern' end
  where entity in ('piece', 'hoist', 'unload', 'gate', 'gauge', 'pattern');

update scan set figures = (figures - 'smallestM') || jsonb_build_object('minimumM', figures -> 'smallestM') where figures ? 'smallestM';

-- the mass of a part, a fastener and a fluid: its uncertainty, mark and typed text stand in its evidence
do $$
declare weighed text;
begin
  foreach weighed in array array['part', 'fastener_set', 'fluid'] loop
    execute format($sql$
      update %I set evidence = case when mass_each_kg is null then evidence - 'massEachKg' else evidence || jsonb_build_object('massEachKg',
        '{"low": null, "high": null, "instrument": "", "source": ""}'::jsonb || coalesce(evidence -> 'massEachKg', '{}')
          || jsonb_build_object('mark', mass_evidence, 'u', mass_u_kg, 'typed', mass_typed)) end
      where mass_each_kg is not null or evidence ? 'massEachKg' $sql$, weighed);
    execute format('alter table %I drop column mass_u_kg, drop column mass_evidence, drop column mass_typed', weighed);
    execute format($sql$
      alter table %I add check ((mass_each_kg is null) = (coalesce(jsonb_typeof(evidence #> '{massEachKg,u}'), 'null') <> 'number'))
      $sql$, weighed);
  end loop;
end $$;
