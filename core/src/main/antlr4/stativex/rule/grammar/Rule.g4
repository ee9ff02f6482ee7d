// The rule language, readable aloud. docs/rule-language.md explains it.
grammar Rule;

condition : disjunction EOF ;
level : sum EOF ;

disjunction : conjunction (OR conjunction)* ;
conjunction : negation (AND negation)* ;
negation : NOT negation     # not
         | timed            # plain
         ;
timed : relation timing* ;
timing : ON ANY OF THE LAST NUMBER bars      # onAny
       | ON EACH OF THE LAST NUMBER bars     # onEach
       | FOR THE FIRST TIME SINCE anchor     # firstTime
       | NUMBER bars BEFORE                  # shifted
       ;
anchor : period OPEN | group ;
period : SESSION | DAY | WEEK | MONTH ;
group : '(' disjunction ')' ;
relation : sum comparator sum                                               # comparison
         | sum crossing sum                                                 # cross
         | sum IS? BETWEEN sum AND sum                                       # within
         | sum IS? trend (OVER NUMBER bars)?                                # slope
         | TIME IS FROM TIMEOFDAY TO TIMEOFDAY (IN zone)?                   # hours
         | BETWEEN TIMEOFDAY AND TIMEOFDAY (IN zone)?                       # clockBetween
         | (AFTER | BEFORE) TIMEOFDAY (IN zone)?                            # clockSide
         | WEEKDAY                                                          # onDay
         | MARK (name | DRAWN STRING) quality* STANDS (ON THIS BAR | WITHIN NUMBER bars)   # marked
         | group                                                            # grouped
         | sum                                                              # flagged
         ;
quality : POINTING (UP | DOWN) | SHAPED word | INKED word ;
comparator : '>' | '<' | '>=' | '<=' | '=' | '!=' | IS NOT
           | IS ABOVE | IS BELOW | IS AT LEAST | IS AT MOST ;
crossing : RISES THROUGH | FALLS THROUGH ;
trend : RISING | FALLING | FLAT ;
zone : word ('/' word)* ;
bars : BAR | BARS ;

sum : product (('+' | '-') product)* ;
product : unary (('*' | '/') unary)* ;
unary : '-' unary       # minus
      | term            # positive
      ;
term : atom suffix* ;
suffix : NUMBER bars BEFORE                  # earlier
       | WHEN group FIRST BECAME TRUE        # held
       ;
atom : NUMBER (TICK | TICKS)?                # number
     | BARS SINCE ENTRY                      # sinceEntry
     | BARS SINCE anchor                     # since
     | TIMES group SINCE anchor              # timesSince
     | TIMES group IN THE LAST NUMBER bars   # timesLast
     | (BARS SINCE EXIT | MINUTES SINCE EXIT | LAST RESULT (IN R)? | LOSSES IN A ROW | TRADES TODAY | RESULT TODAY)   # own
     | (OPEN RESULT | BEST EXCURSION | WORST EXCURSION)   # position
     | figure NUMBER OF term                 # window
     | DRAWN STRING                          # drawn
     | FORMING name                          # forming
     | NAME '(' sum (',' sum)* ')'           # call
     | name                                  # named
     | '(' sum ')'                           # brackets
     ;
figure : HIGHEST | LOWEST | SUM | AVERAGE | MEDIAN | RANK | PERCENT RANK ;
name : word ('.' part)* ;
word : NAME | OPEN | SESSION | DAY | WEEK | MONTH | TIME | ENTRY | RESULT | BEST | WORST | LAST | FIRST | TRUE | FLAT
     | LEAST | MOST | ABOVE | BELOW | DRAWN | BETWEEN | AFTER | HIGHEST | LOWEST | SUM | AVERAGE | MEDIAN | RANK | PERCENT
     | EXIT | MINUTES | LOSSES | A | ROW | TRADES | TODAY | R
     | MARK | STANDS | THIS | WITHIN | POINTING | UP | DOWN | SHAPED | INKED ;
part : word | BAR | BARS | RISING | FALLING | TIMES | TICK | TICKS | BEFORE | SINCE | OVER ;

AND : 'and' ;
OR : 'or' ;
NOT : 'not' ;
IS : 'is' ;
ABOVE : 'above' ;
BELOW : 'below' ;
AT : 'at' ;
LEAST : 'least' ;
MOST : 'most' ;
RISES : 'rises' ;
FALLS : 'falls' ;
THROUGH : 'through' ;
RISING : 'rising' ;
FALLING : 'falling' ;
FLAT : 'flat' ;
OVER : 'over' ;
ON : 'on' ;
ANY : 'any' ;
EACH : 'each' ;
OF : 'of' ;
THE : 'the' ;
LAST : 'last' ;
FOR : 'for' ;
FIRST : 'first' ;
TIME : 'time' ;
TIMES : 'times' ;
SINCE : 'since' ;
SESSION : 'session' ;
DAY : 'day' ;
WEEK : 'week' ;
MONTH : 'month' ;
OPEN : 'open' ;
FROM : 'from' ;
TO : 'to' ;
IN : 'in' ;
WHEN : 'when' ;
BECAME : 'became' ;
TRUE : 'true' ;
ENTRY : 'entry' ;
RESULT : 'result' ;
BEST : 'best' ;
WORST : 'worst' ;
EXCURSION : 'excursion' ;
DRAWN : 'drawn' ;
FORMING : 'forming' ;
BAR : 'bar' ;
BARS : 'bars' ;
BEFORE : 'before' ;
EXIT : 'exit' ;
MINUTES : 'minutes' ;
LOSSES : 'losses' ;
A : 'a' ;
ROW : 'row' ;
TRADES : 'trades' ;
TODAY : 'today' ;
R : 'R' ;
BETWEEN : 'between' ;
AFTER : 'after' ;
HIGHEST : 'highest' ;
LOWEST : 'lowest' ;
SUM : 'sum' ;
AVERAGE : 'average' ;
MEDIAN : 'median' ;
RANK : 'rank' ;
PERCENT : 'percent' ;
MARK : 'mark' ;
STANDS : 'stands' ;
THIS : 'this' ;
WITHIN : 'within' ;
POINTING : 'pointing' ;
UP : 'up' ;
DOWN : 'down' ;
SHAPED : 'shaped' ;
INKED : 'inked' ;
WEEKDAY : 'Monday' | 'Tuesday' | 'Wednesday' | 'Thursday' | 'Friday' | 'Saturday' | 'Sunday' ;
TICK : 'tick' ;
TICKS : 'ticks' ;
TIMEOFDAY : [0-9] [0-9]? ':' [0-9][0-9] (':' [0-9][0-9])? ;
NUMBER : [0-9]+ ('.' [0-9]+)? ;
NAME : [a-zA-Z_] [a-zA-Z_0-9]* ;
STRING : '"' ~["\r\n]* '"' ;
COMMENT : '#' ~[\r\n]* -> skip ;
SPACE : [ \t\r\n]+ -> skip ;
