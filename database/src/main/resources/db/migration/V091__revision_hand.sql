-- Who changed a title or a fact of a revision: with who made its versions, those who do not sign it.
create table if not exists revision_hand (
  revision bigint not null,
  person bigint not null,
  primary key (revision, person),
  constraint revision_hand_revision foreign key (revision) references revision (id),
  constraint revision_hand_person foreign key (person) references person (id)
);
