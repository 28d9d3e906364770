-- A fact of a revision, typed.
create table if not exists fact_value (
  revision bigint not null,
  fact bigint not null,
  text_value varchar(500) null,
  number_value decimal(30,10) null,
  date_value date null,
  primary key (revision, fact),
  key fact_value_text (fact, text_value(100)),
  key fact_value_number (fact, number_value),
  constraint fact_value_revision foreign key (revision) references revision (id),
  constraint fact_value_fact foreign key (fact) references fact (id)
);
