-- Papers of change: requests and orders, their lines, what they go by.

-- A paper of a change: the paper is an item of its own; what it changes are its lines.
create table if not exists paper (
  item bigint not null primary key,
  type varchar(8) character set ascii collate ascii_bin not null,
  reason varchar(2000) not null,
  cause varchar(40) character set ascii collate ascii_bin not null default '',
  priority varchar(8) character set ascii collate ascii_bin not null default 'USUAL',
  deferred_until date null,
  notice bigint null,
  carried_out_at datetime(6) null,
  ended_why varchar(500) null,
  constraint paper_type check (type in ('REQUEST','ORDER')),
  constraint paper_priority check (priority in ('USUAL','SOON','NOW')),
  constraint paper_item foreign key (item) references item (id),
  constraint paper_notice foreign key (notice) references item (id)
);

-- A document on a paper; on one open order at most.
create table if not exists paper_line (
  id bigint not null auto_increment primary key,
  paper bigint not null,
  position int not null,
  item bigint not null,
  what varchar(12) character set ascii collate ascii_bin not null,
  reason varchar(500) not null,
  interchangeable tinyint(1) not null default 1,
  from_revision bigint null,
  to_revision bigint null,
  open_mark smallint null check (open_mark = 1),
  constraint paper_line_item_once unique (paper, item),
  constraint paper_line_open unique (item, open_mark),
  key paper_line_revision (to_revision),
  constraint paper_line_what check (what in ('REVISE','FIRST')),
  constraint paper_line_paper foreign key (paper) references paper (item),
  constraint paper_line_item foreign key (item) references item (id),
  constraint paper_line_from foreign key (from_revision, item) references revision (id, item),
  constraint paper_line_to foreign key (to_revision, item) references revision (id, item)
);

-- A request that an order takes up; one order at most.
create table if not exists order_request (
  request bigint not null primary key,
  change_order bigint not null,
  key order_request_order (change_order),
  constraint order_request_request foreign key (request) references paper (item),
  constraint order_request_order foreign key (change_order) references paper (item)
);

-- What a paper goes by: an exact version of a document, alone or beside an older one of it.
create table if not exists paper_evidence (
  id bigint not null auto_increment primary key,
  paper bigint not null,
  version bigint not null,
  against bigint null,
  note varchar(300) not null,
  added_by bigint not null,
  constraint paper_evidence_once unique (paper, version, against),
  constraint paper_evidence_paper foreign key (paper) references paper (item),
  constraint paper_evidence_version foreign key (version) references version (id),
  constraint paper_evidence_against foreign key (against) references version (id),
  constraint paper_evidence_person foreign key (added_by) references person (id)
);

-- What is to be true of a fact of a line afterwards; a percentage is of what it was before.
create table if not exists paper_goal (
  id bigint not null auto_increment primary key,
  paper bigint not null,
  item bigint not null,
  fact bigint not null,
  relation varchar(8) character set ascii collate ascii_bin not null,
  wanted varchar(200) not null,
  percent tinyint(1) not null,
  constraint paper_goal_relation check (relation in ('AT_MOST','AT_LEAST','EQUAL')),
  constraint paper_goal_line foreign key (paper, item) references paper_line (paper, item) on delete cascade,
  constraint paper_goal_fact foreign key (fact) references fact (id)
);

-- What people say of a document that a change reaches: whether it keeps its number once revised, or what it is against the rule.
create table if not exists paper_reach (
  paper bigint not null,
  item bigint not null,
  interchangeable tinyint(1) null,
  verdict varchar(12) character set ascii collate ascii_bin null,
  why varchar(300) not null,
  person bigint not null,
  said_at datetime(6) not null,
  primary key (paper, item),
  constraint paper_reach_verdict check (verdict in ('TAKES','ALONG','REVISED','NEW_NUMBER','SPARED')),
  constraint paper_reach_paper foreign key (paper) references paper (item),
  constraint paper_reach_item foreign key (item) references item (id),
  constraint paper_reach_person foreign key (person) references person (id)
);
