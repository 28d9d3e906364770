-- A filing sheet, from the drop to its report.
create table if not exists filing (
  id bigint not null auto_increment primary key,
  person bigint not null,
  shelf bigint not null,
  folder bigint not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  created_at datetime(6) not null,
  ended_at datetime(6) null,
  constraint filing_state check (state in ('OPEN','FILED','DROPPED')),
  constraint filing_person foreign key (person) references person (id),
  constraint filing_place foreign key (folder, shelf) references folder (id, shelf)
);
