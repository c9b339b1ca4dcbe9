-- scans are kept beside the pictures; only a picture has a size in pixels and a thumbnail
alter table file drop constraint file_media_type_check;
alter table file add constraint file_media_type_check
  check (media_type in ('image/jpeg', 'image/png', 'model/stl', 'model/ply', 'model/obj'));
alter table file
  alter column width_px drop not null,
  alter column height_px drop not null,
  alter column thumbnail drop not null;
alter table file add constraint file_picture_whole
  check (case when media_type like 'image/%' then num_nonnulls(width_px, height_px, thumbnail) = 3
              else num_nonnulls(width_px, height_px, thumbnail) = 0 end);

create table scan (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  sha256 text not null,
  file_name text not null check (btrim(file_name) <> ''),
  format text not null check (format in ('STL', 'PLY', 'OBJ')),
  bytes integer not null check (bytes > 0),
  unit text not null check (unit in ('mm', 'cm', 'in', 'm')),
  unit_by text not null,
  figures jsonb not null check (jsonb_typeof(figures) = 'object'),
  instrument text not null,
  serial text not null,
  taken_at text not null,
  taken_by text not null,
  note text not null,
  unique (id, study_id),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred,
  foreign key (study_id, sha256) references study_file deferrable initially deferred
);

create table identification (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  cues jsonb not null check (jsonb_typeof(cues) = 'array'),
  reading_id uuid,
  marking text not null,
  material_id text,
  grade text not null,
  process_id text,
  reason text not null,
  decided_at text not null,
  decided_by text not null,
  unique (id, study_id),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

create table section (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  kind text not null check (kind in ('rectangle', 'round tube', 'rectangular tube', 'channel', 'hat', 'closed hat', 'outline')),
  dimensions jsonb not null check (jsonb_typeof(dimensions) = 'object'),
  loops jsonb not null check (jsonb_typeof(loops) = 'array'),
  scan_id uuid,
  material_id text,
  note text not null,
  check ((kind = 'outline') = (jsonb_array_length(loops) > 0)),
  unique (id, study_id),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

create table pattern (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  points jsonb not null check (jsonb_typeof(points) = 'array' and jsonb_array_length(points) between 2 and 40),
  source text not null check (source in ('scan', 'caliper', 'drawing', 'other')),
  note text not null,
  unique (id, study_id),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred
);

create table gauge (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  sequence integer not null check (sequence >= 0),
  name text not null check (btrim(name) <> ''),
  quantity text not null check (quantity in ('length', 'mass')),
  persons jsonb not null check (jsonb_typeof(persons) = 'array'),
  parts jsonb not null check (jsonb_typeof(parts) = 'array'),
  trials integer not null check (trials between 2 and 20),
  readings jsonb not null check (jsonb_typeof(readings) = 'array'),
  instrument text not null,
  note text not null,
  unique (id, study_id)
);

create index scan_of_study on scan (study_id);
create index scan_of_piece on scan (piece_id);
create index identification_of_study on identification (study_id);
create index identification_of_piece on identification (piece_id);
create index section_of_study on section (study_id);
create index section_of_piece on section (piece_id);
create index pattern_of_study on pattern (study_id);
create index pattern_of_piece on pattern (piece_id);
create index gauge_of_study on gauge (study_id);
