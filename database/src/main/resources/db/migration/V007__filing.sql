-- Filing sheets.

-- A filing sheet, from the drop to its report.
create table if not exists filing (
  id bigint not null auto_increment primary key,
  person bigint not null,
  shelf bigint not null,
  folder bigint not null,
  derived_from bigint null,
  comment varchar(2000) not null default '',
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
  uses tinyint(1) not null default 0,
  words varchar(2000) not null default '',
  path varchar(1000) not null default '',
  beside bigint null,
  released tinyint(1) not null default 0,
  started_from bigint null,
  item bigint null,
  key filing_row_filing (filing, position),
  constraint filing_row_filing foreign key (filing) references filing (id),
  constraint filing_row_beside foreign key (beside) references filing_row (id),
  constraint filing_row_upload foreign key (upload) references upload (id),
  constraint filing_row_kind foreign key (kind) references kind (id),
  constraint filing_row_folder foreign key (folder) references folder (id),
  constraint filing_row_started_from foreign key (started_from) references item (id),
  constraint filing_row_same_as foreign key (same_as) references item (id),
  constraint filing_row_item foreign key (item) references item (id)
);

-- A number that is kept for a row of a filing sheet while that is open, and where it was drawn from.
create table if not exists number_reserved (
  filing_row bigint not null primary key,
  aspect varchar(10) character set ascii collate ascii_bin not null,
  number_key varchar(60) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  series bigint not null,
  scope_key varchar(250) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  value bigint not null,
  constraint number_reserved_number unique (aspect, number_key),
  constraint number_reserved_row foreign key (filing_row) references filing_row (id),
  constraint number_reserved_claim foreign key (aspect, number_key) references number_claim (aspect, number_key),
  constraint number_reserved_series foreign key (series) references number_series (id)
);

-- What a company has, taken in: from the bringing of the files over a dry run to the report.
create table if not exists take_in (
  id bigint not null auto_increment primary key,
  person bigint not null,
  shelf bigint not null,
  folder bigint not null,
  name varchar(200) not null,
  state varchar(12) character set ascii collate ascii_bin not null,
  rules json not null,
  table_name varchar(200) not null default '',
  table_rows longtext null,
  archive bigint null,
  general json null,
  done int not null default 0,
  total int not null default 0,
  says varchar(500) not null default '',
  begun_at datetime(6) not null,
  moved_at datetime(6) not null,
  ended_at datetime(6) null,
  next_at datetime(6) not null,
  lease_until datetime(6) null,
  tries int not null default 0,
  key take_in_person (person, id),
  key take_in_waiting (state, next_at),
  constraint take_in_state check (state in ('BRINGING','UNPACKING','READING','OPEN','FILING','DONE','DROPPED')),
  constraint take_in_by foreign key (person) references person (id),
  constraint take_in_archive foreign key (archive) references upload (id),
  constraint take_in_place foreign key (folder, shelf) references folder (id, shelf)
);

-- A file of a taking-in: what it says, what becomes of it, what became of it. The path as it came is unique by its hash.
create table if not exists take_in_file (
  take_in bigint not null,
  position int not null,
  path_hash binary(32) not null,
  raw varchar(1000) not null,
  path varchar(1000) not null,
  upload bigint null,
  unread varchar(300) not null default '',
  size bigint not null,
  content char(64) character set ascii collate ascii_bin not null default '',
  content_kind varchar(20) character set ascii collate ascii_bin not null default '',
  says json null,
  refers_to json null,
  mended json null,
  plan json null,
  verdict varchar(10) character set ascii collate ascii_bin null,
  hinted tinyint(1) not null default 0,
  document int null,
  step int null,
  trouble varchar(500) not null default '',
  item bigint null,
  version bigint null,
  primary key (take_in, position),
  constraint take_in_file_path unique (take_in, path_hash),
  key take_in_file_verdict (take_in, verdict, position),
  key take_in_file_document (take_in, document, step),
  constraint take_in_file_verdict check (verdict in ('GOES','STOPS','WAITS','LEFT_OUT')),
  constraint take_in_file_of foreign key (take_in) references take_in (id),
  constraint take_in_file_upload foreign key (upload) references upload (id),
  constraint take_in_file_item foreign key (item) references item (id),
  constraint take_in_file_version foreign key (version) references version (id)
);
