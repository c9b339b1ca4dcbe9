-- A large change is written before its turn in the ledger comes, so that others go on meanwhile. Until then nobody knows its
-- revision: its rows carry its mark, a number below nothing, and are read with the revision of the change that has the mark.
do $$
declare
  held record;
begin
  for held in
    select c.conname, c.conrelid::regclass as of_table, a.attname from pg_constraint c
      join pg_attribute a on a.attrelid = c.conrelid and a.attnum = any(c.conkey)
      where c.contype = 'c' and c.connamespace = current_schema()::regnamespace and array_length(c.conkey, 1) = 1
        and (a.attname = 'version' or (a.attname = 'revision' and c.conrelid = 'change'::regclass))
  loop
    execute format('alter table %s drop constraint %I, add constraint %I check (%I <> 0)', held.of_table, held.conname, held.conname, held.attname);
  end loop;
end $$;
alter table change add column mark bigint unique check (mark < 0);

-- of a change that only adds, what undoes it takes off what it added: it is not stored once more
alter table change alter column inverse drop not null;

-- a quicker packing of what is large, where the server of the database has it
do $$
begin
  alter table change alter column ops set compression lz4, alter column inverse set compression lz4;
exception when feature_not_supported then null;
end $$;

-- which rows a change touched is told by the change itself, which has an id before it has a revision
alter table change_row add column change_id uuid;
update change_row r set change_id = c.id from change c where c.study_id = r.study_id and c.revision = r.revision;
alter table change_row drop constraint change_row_study_id_revision_fkey, drop constraint change_row_pkey;
alter table change_row drop column revision;
alter table change_row alter column change_id set not null;
alter table change_row add primary key (study_id, row_id, change_id);
alter table change_row add foreign key (change_id) references change;
create index change_row_of_change on change_row (change_id);

-- a tag is looked for in the whole study
create index piece_tagged on piece (study_id, tag) where tag <> '';

-- scans are read by stretches: kept as they are, a stretch is read without unpacking what stands before it
alter table file alter column bytes set storage external;
update file set bytes = bytes || ''::bytea where pg_column_compression(bytes) is not null;
