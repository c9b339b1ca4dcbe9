-- every process has the same list of instruments: each is told when it changes
create function tell_instruments() returns trigger language plpgsql as $$
begin
  perform pg_notify('instruments', '');
  return null;
end $$;
create trigger instruments_changed after insert or delete or update on instrument for each statement execute function tell_instruments();
