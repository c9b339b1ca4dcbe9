-- a session that ends, however it does, is told to every process, so that its streams end with it
create function tell_session_end() returns trigger language plpgsql as $$
begin
  perform pg_notify('session_end', encode(sha256(convert_to(old.sid, 'UTF8')), 'hex'));
  return null;
end $$;
create trigger session_end after delete on session for each row execute function tell_session_end();
