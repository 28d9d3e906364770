-- Filing sheets.

-- A filing sheet, from the drop to its report.
create table if not exists filing (
  id bigint not null auto_increment primary key,
  person bigint not null,
  shelf bigint not null,
  folder bigint not null,
  derived_from bigint null,
  state varchar(10) character set ascii collate ascii_bin not null,
  created_at datetime(6) not null,
  ended_at datetime(6) null,
  constraint filing_state check (state in ('OPEN','FILED','DROPPED')),
  constraint filing_derived_from foreign key (derived_from) references item (id),
  constraint filing_person foreign key (person) references person (id),
  constraint filing_place foreign key (folder, shelf) references folder (id, shelf)
);

-- A row of a filing sheet.
create table if not exists filing_row (
  id bigint not null auto_increment primary key,
  filing bigint not null,
  upload bigint not null,
  position int not null,
  included tinyint(1) not null default 1,
  kind bigint null,
  kind_why varchar(200) not null,
  number varchar(100) not null,
  number_why varchar(200) not null,
  title varchar(300) not null,
  title_why varchar(200) not null,
  folder bigint not null,
  revision varchar(20) not null default '',
  revision_why varchar(100) not null default '',
  facts json not null,
  same_as bigint null,
  item bigint null,
  key filing_row_filing (filing, position),
  constraint filing_row_filing foreign key (filing) references filing (id),
  constraint filing_row_upload foreign key (upload) references upload (id),
  constraint filing_row_kind foreign key (kind) references kind (id),
  constraint filing_row_folder foreign key (folder) references folder (id),
  constraint filing_row_same_as foreign key (same_as) references item (id),
  constraint filing_row_item foreign key (item) references item (id)
);
