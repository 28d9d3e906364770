-- Decides the kind of a new file from its name and its content; the first that fits wins.
create table if not exists filing_rule (
  id bigint not null auto_increment primary key,
  position int not null,
  content_kind varchar(20) character set ascii collate ascii_bin not null default '',
  name_pattern varchar(200) not null default '',
  kind bigint not null,
  constraint filing_rule_kind foreign key (kind) references kind (id)
);
