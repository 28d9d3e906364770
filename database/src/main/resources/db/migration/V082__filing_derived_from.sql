-- What was changed without a hold may be filed as a new document: it says from which one it was derived.
alter table filing
  add column if not exists derived_from bigint null,
  add constraint filing_derived_from foreign key if not exists (derived_from) references item (id);
