-- failed sign-ins are counted by where they come from and the name they try, in a place all processes share: whoever guesses is slowed,
-- not the owner of the name; login '' counts all names that failed from an address
create table sign_in_attempt (
  address text not null check (length(address) between 1 and 64),
  login text not null check (length(login) <= 200),
  failures integer not null check (failures >= 0),
  locked_until timestamptz,
  tried_at timestamptz not null default now(),
  primary key (address, login)
);
create index on sign_in_attempt (tried_at);
alter table person drop column failures, drop column locked_until;
