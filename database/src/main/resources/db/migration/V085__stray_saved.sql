-- What was taken for only saved once more is kept beside its document for a while, for its author: no fault of that rule loses work.
alter table stray
  drop constraint if exists stray_state,
  add constraint stray_state check (state in ('KEPT','SAVED','ADOPTED','DROPPED'));
