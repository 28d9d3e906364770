-- The house: roles, shelves, routes, series, kinds, facts, and who may do what.

-- A named list of rights.
create table if not exists role (
  id bigint not null auto_increment primary key,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(100) not null,
  constraint role_code unique (code)
);

-- The rights of a role.
create table if not exists role_right (
  role bigint not null,
  access_right varchar(40) character set ascii collate ascii_bin not null,
  primary key (role, access_right),
  constraint role_right_role foreign key (role) references role (id)
);

-- A project's controlled store of documents.
create table if not exists shelf (
  id bigint not null auto_increment primary key,
  name varchar(120) not null,
  name_key varchar(120) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  note varchar(300) not null default '',
  library tinyint(1) not null default 0,
  hides_revising tinyint(1) not null default 0,
  created_at datetime(6) not null,
  constraint shelf_name unique (name_key)
);

-- A folder of a shelf. The root of a shelf has no parent; ordinal is the place in the shelf's tree, top down.
create table if not exists folder (
  id bigint not null auto_increment primary key,
  shelf bigint not null,
  parent bigint null,
  name varchar(120) not null,
  name_key varchar(120) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  root_mark smallint null check (root_mark = 1),
  depth int not null,
  ordinal int not null,
  every_desk tinyint(1) not null default 0,
  constraint folder_name unique (parent, name_key),
  constraint folder_shelf_id unique (id, shelf),
  constraint folder_root unique (shelf, root_mark),
  constraint folder_has_parent_or_is_root check ((parent is null) = (root_mark is not null)),
  constraint folder_shelf foreign key (shelf) references shelf (id),
  constraint folder_parent foreign key (parent, shelf) references folder (id, shelf)
);

-- The path that a kind of document takes.
create table if not exists route (
  id bigint not null auto_increment primary key,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(100) not null,
  constraint route_code unique (code)
);

-- One edition of a route; documents under way finish on the edition they started with.
create table if not exists route_edition (
  id bigint not null auto_increment primary key,
  route bigint not null,
  edition int not null,
  definition json not null,
  shipped binary(32) null,
  made_by bigint null,
  made_at datetime(6) not null default current_timestamp(6),
  why varchar(300) not null default '',
  constraint route_edition_number unique (route, edition),
  constraint route_edition_person foreign key (made_by) references person (id),
  constraint route_edition_route foreign key (route) references route (id)
);

-- An edition that somebody is writing: the states of it, the latest last, so that a step can be taken back.
create table if not exists route_draft (
  person bigint not null,
  route bigint not null,
  base int not null,
  begun_at datetime(6) not null,
  states json not null,
  primary key (person, route),
  constraint route_draft_person foreign key (person) references person (id),
  constraint route_draft_route foreign key (route) references route (id)
);

-- A stop of a route edition. Rules read its class, pages show its name.
create table if not exists stage (
  edition bigint not null,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(60) not null,
  class varchar(20) character set ascii collate ascii_bin not null,
  position int not null,
  primary key (edition, code),
  constraint stage_class check (class in ('PREPARING','DECIDING','RELEASED','SUPERSEDED','WITHDRAWN','CLOSED')),
  constraint stage_edition foreign key (edition) references route_edition (id)
);

-- A pattern from which document numbers are drawn.
create table if not exists number_series (
  id bigint not null auto_increment primary key,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(100) not null,
  pattern varchar(200) not null,
  scope varchar(10) character set ascii collate ascii_bin not null,
  constraint number_series_code unique (code),
  constraint number_series_scope check (scope in ('SERVER','SHELF','KIND'))
);

-- The next value of a counter, by the scope and the fixed text in which it counts.
create table if not exists number_counter (
  series bigint not null,
  scope_key varchar(250) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  next_value bigint not null,
  primary key (series, scope_key),
  constraint number_counter_series foreign key (series) references number_series (id)
);

-- Numbers of a counter that were taken out of it ahead, for somebody or something; what was given back is drawn again before the counter goes on.
create table if not exists number_range (
  id bigint not null auto_increment primary key,
  series bigint not null,
  scope_key varchar(250) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  first_value bigint not null,
  last_value bigint not null,
  next_back bigint null,
  for_person bigint null,
  note varchar(200) not null,
  reserved_by bigint not null,
  reserved_at datetime(6) not null,
  key number_range_scope (series, scope_key, first_value),
  constraint number_range_values check (first_value <= last_value),
  constraint number_range_series foreign key (series) references number_series (id),
  constraint number_range_for foreign key (for_person) references person (id),
  constraint number_range_by foreign key (reserved_by) references person (id)
);

-- What a document is: fixes its route, its two series and its facts.
create table if not exists kind (
  id bigint not null auto_increment primary key,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(80) not null,
  aspect varchar(10) character set ascii collate ascii_bin not null,
  glyph varchar(20) character set ascii collate ascii_bin not null,
  number_series bigint not null,
  revision_series varchar(200) not null,
  label_taken varchar(10) character set ascii collate ascii_bin not null,
  route bigint not null,
  position int not null,
  paper varchar(12) character set ascii collate ascii_bin null,
  hides_revising tinyint(1) not null default 0,
  outputs varchar(100) character set ascii collate ascii_bin not null default 'PDF',
  output_name varchar(120) not null default '{number}_{revision}',
  constraint kind_code unique (code),
  constraint kind_aspect check (aspect in ('DRAWING','MODEL','PAPER','PART')),
  constraint kind_label_taken check (label_taken in ('START','RELEASE')),
  constraint kind_number_series foreign key (number_series) references number_series (id),
  constraint kind_route foreign key (route) references route (id)
);

-- A shelf's own route for a kind, in place of the kind's.
create table if not exists shelf_route (
  shelf bigint not null,
  kind bigint not null,
  route bigint not null,
  primary key (shelf, kind),
  constraint shelf_route_shelf foreign key (shelf) references shelf (id),
  constraint shelf_route_kind foreign key (kind) references kind (id),
  constraint shelf_route_route foreign key (route) references route (id)
);

-- Decides the kind of a new file from its name and its content; the first that fits wins.
create table if not exists filing_rule (
  id bigint not null auto_increment primary key,
  position int not null,
  content_kind varchar(20) character set ascii collate ascii_bin not null default '',
  name_pattern varchar(200) not null default '',
  kind bigint not null,
  constraint filing_rule_kind foreign key (kind) references kind (id)
);

-- A named value that documents record: its type, what its values look like (form), how it comes to one and who may change it (used).
create table if not exists fact (
  id bigint not null auto_increment primary key,
  name varchar(60) not null,
  name_key varchar(60) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  label varchar(80) not null,
  type varchar(10) character set ascii collate ascii_bin not null,
  form json not null,
  used json not null,
  constraint fact_name unique (name_key),
  constraint fact_type check (type in ('TEXT','NUMBER','DATE','YES_NO','CHOICE','PERSON','DOCUMENT'))
);

-- The facts of a kind, in their order, and from when they are required.
create table if not exists kind_fact (
  kind bigint not null,
  fact bigint not null,
  required varchar(10) character set ascii collate ascii_bin not null,
  cleared tinyint(1) not null default 0,
  position int not null,
  primary key (kind, fact),
  constraint kind_fact_required check (required in ('NEVER','FILING','RELEASE')),
  constraint kind_fact_kind foreign key (kind) references kind (id),
  constraint kind_fact_fact foreign key (fact) references fact (id)
);

-- (person or group) x (shelf, folder, kind; empty = any) x role. Rights add up, there is no deny.
create table if not exists access_grant (
  id bigint not null auto_increment primary key,
  person bigint null,
  person_group bigint null,
  role bigint not null,
  shelf bigint null,
  folder bigint null,
  kind bigint null,
  constraint access_grant_one_subject check ((person is null) <> (person_group is null)),
  constraint access_grant_person foreign key (person) references person (id),
  constraint access_grant_group foreign key (person_group) references person_group (id),
  constraint access_grant_role foreign key (role) references role (id),
  constraint access_grant_shelf foreign key (shelf) references shelf (id),
  constraint access_grant_folder foreign key (folder) references folder (id),
  constraint access_grant_kind foreign key (kind) references kind (id)
);

-- Moves on whenever a grant, a role or a membership changes, so that nodes may keep what they read of them until it does.
create table if not exists access_stamp (id smallint not null primary key check (id = 1), stamp bigint not null) select 1 as id, 0 as stamp;

-- Every edition of a kind, a number series, a fact, the filing rules; the latest is what their own tables say. Shipped ones have no maker.
create table if not exists rule_edition (
  id bigint not null auto_increment primary key,
  subject varchar(20) character set ascii collate ascii_bin not null,
  code varchar(40) character set ascii collate ascii_bin not null,
  edition int not null,
  definition json not null,
  made_by bigint null,
  made_at datetime(6) not null,
  why varchar(300) not null default '',
  constraint rule_edition_number unique (subject, code, edition),
  constraint rule_edition_subject check (subject in ('KIND','SERIES','FACT','FILING','SIGN_OFF','CALENDAR','DISTRIBUTION','CHANGE_CONTROL','NOTICE_FORM')),
  constraint rule_edition_person foreign key (made_by) references person (id)
);

-- Which attribute of a title block carries which fact. Editions stay: a stamp names the one it was made with.
create table if not exists sheet_map (
  id bigint not null auto_increment primary key,
  name varchar(60) not null,
  edition int not null,
  definition json not null,
  in_use boolean not null default true,
  made_by bigint null,
  made_at datetime(6) null,
  why varchar(300) not null default '',
  constraint sheet_map_edition unique (name, edition),
  constraint sheet_map_person foreign key (made_by) references person (id)
);

-- The rules that sheets of a kind are held to; editions stay. A kind without any has the ready-made hints.
create table if not exists check_rules (
  id bigint not null auto_increment primary key,
  kind bigint not null,
  edition int not null,
  rules text not null,
  waived_by varchar(40) character set ascii collate ascii_bin not null,
  made_by bigint null,
  made_at datetime(6) null,
  why varchar(300) not null default '',
  constraint check_rules_person foreign key (made_by) references person (id),
  constraint check_rules_edition unique (kind, edition),
  constraint check_rules_kind foreign key (kind) references kind (id)
);
