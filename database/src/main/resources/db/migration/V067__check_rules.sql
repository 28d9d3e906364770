-- The rules that sheets of a kind are held to; editions stay. A kind without any has the ready-made hints.
create table if not exists check_rules (
  id bigint not null auto_increment primary key,
  kind bigint not null,
  edition int not null,
  rules text not null,
  waived_by varchar(40) character set ascii collate ascii_bin not null,
  constraint check_rules_edition unique (kind, edition),
  constraint check_rules_kind foreign key (kind) references kind (id)
);
