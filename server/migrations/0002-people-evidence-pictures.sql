create table person (
  id uuid primary key,
  login text not null unique check (login ~ '^[a-z0-9][a-z0-9._-]{1,39}$'),
  name text not null check (btrim(name) <> ''),
  -- a lead of the house begins studies and makes accounts
  standing text not null check (standing in ('lead', 'member')),
  password_hash text not null,
  -- the password is one of those the demo study came with, which everybody can read
  demo_password boolean not null,
  made_at timestamptz not null default now(),
  -- sign-ins that failed since the last one that did not
  failures integer not null default 0 check (failures >= 0),
  locked_until timestamptz
);

create table session (
  sid text primary key,
  sess json not null,
  expire timestamptz not null
);
create index session_by_expiry on session (expire);

create table setting (
  name text primary key,
  value text not null
);

alter table study add column state text not null default 'open' check (state in ('open', 'archived'));
alter table study alter column state drop default;

create table member (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  person_id uuid not null references person deferrable initially deferred,
  role text not null check (role in ('lead', 'recorder', 'cost', 'reader')),
  unique (study_id, person_id)
);
create index member_of_person on member (person_id);

-- how values are known, by field
alter table piece add column known jsonb not null default '{}' check (jsonb_typeof(known) = 'object');
alter table piece alter column known drop default;
alter table fastener_set add column known jsonb not null default '{}' check (jsonb_typeof(known) = 'object');
alter table fastener_set alter column known drop default;
alter table joint_set add column known jsonb not null default '{}' check (jsonb_typeof(known) = 'object');
alter table joint_set alter column known drop default;

-- a price keeps the digits it was typed with: 4.20 stays 4.20
alter table piece alter column bought_price type numeric;
alter table piece add check (bought_price < 1000000000 and scale(bought_price) <= 4);

create table question (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  kind text not null check (kind in ('question', 'promise')),
  -- not a foreign key: a question stays when what it is about is taken off
  about_kind text not null check (about_kind in ('study', 'vehicle', 'subsystem', 'piece', 'fasteners', 'joints')),
  about_id uuid not null,
  about_field text,
  text text not null check (btrim(text) <> ''),
  owner_id uuid references person deferrable initially deferred,
  due_on date,
  owed_to text not null,
  state text not null check (state in ('open', 'answered', 'dropped')),
  answer text not null,
  check (state <> 'answered' or btrim(answer) <> ''),
  check (kind <> 'promise' or btrim(owed_to) <> '')
);
create index question_of_study on question (study_id);

-- pictures and other files, once each, under their content hash
create table file (
  sha256 text primary key check (sha256 ~ '^[0-9a-f]{64}$'),
  media_type text not null check (media_type in ('image/jpeg', 'image/png')),
  width_px integer not null check (width_px > 0),
  height_px integer not null check (height_px > 0),
  bytes bytea not null,
  thumbnail bytea not null
);

-- which studies hold a file, so that nobody reads one by guessing its hash
create table study_file (
  study_id uuid not null references study,
  sha256 text not null references file,
  primary key (study_id, sha256)
);
create index study_file_of_file on study_file (sha256);

create table picture (
  id uuid primary key,
  study_id uuid not null references study,
  version bigint not null check (version > 0),
  piece_id uuid not null,
  sequence integer not null check (sequence >= 0),
  sha256 text not null,
  width_px integer not null check (width_px > 0),
  height_px integer not null check (height_px > 0),
  shows text not null,
  marks jsonb not null check (jsonb_typeof(marks) = 'array'),
  foreign key (piece_id, study_id) references piece (id, study_id) deferrable initially deferred,
  foreign key (study_id, sha256) references study_file deferrable initially deferred
);
create index picture_of_study on picture (study_id);
create index picture_of_piece on picture (piece_id);

alter table change add column person_id uuid references person;
alter table change add column undoes uuid unique references change;
create index change_of_person on change (study_id, person_id, revision) where person_id is not null;

-- which rows a change touched: the history of a piece is found by it
create table change_row (
  study_id uuid not null,
  row_id uuid not null,
  revision bigint not null,
  entity text not null,
  primary key (study_id, row_id, revision),
  foreign key (study_id, revision) references change (study_id, revision)
);
insert into change_row (study_id, row_id, revision, entity)
  select distinct c.study_id, (op ->> 'id')::uuid, c.revision, split_part(op ->> 'kind', '.', 1)
  from change c cross join lateral jsonb_array_elements(c.ops) op;

-- who has which study and piece open; of no worth after a crash
create unlogged table presence (
  connection uuid primary key,
  study_id uuid not null,
  person_id uuid not null,
  device text not null,
  piece_id uuid,
  seen_at timestamptz not null default now()
);
create index presence_of_study on presence (study_id);
