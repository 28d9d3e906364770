-- The proof of a stamp version: what was signed, what was written, with which map and values.
create table if not exists stamp (
  version bigint not null primary key,
  signed_version bigint not null,
  sheet_map bigint not null,
  signed_hash binary(32) not null,
  stamped_hash binary(32) not null,
  fact_values json not null,
  edits json not null,
  constraint stamp_version foreign key (version) references version (id),
  constraint stamp_signed foreign key (signed_version) references version (id),
  constraint stamp_map foreign key (sheet_map) references sheet_map (id)
);
