-- The revision that a sheet says it is.
alter table filing_row
  add column if not exists revision varchar(20) not null default '',
  add column if not exists revision_why varchar(100) not null default '';
