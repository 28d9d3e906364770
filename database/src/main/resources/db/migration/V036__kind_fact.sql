-- The facts of a kind, in their order, and from when they are required.
create table if not exists kind_fact (
  kind bigint not null,
  fact bigint not null,
  required varchar(10) character set ascii collate ascii_bin not null,
  position int not null,
  primary key (kind, fact),
  constraint kind_fact_required check (required in ('NEVER','FILING','RELEASE')),
  constraint kind_fact_kind foreign key (kind) references kind (id),
  constraint kind_fact_fact foreign key (fact) references fact (id)
);
