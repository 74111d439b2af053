"""What is wrong: a symptom, what could cause it in this plan, and the shortest order to find out."""

from tidy_trunk.core.advice.fault_search.search import FaultTest, Search, SearchAnswer, search
from tidy_trunk.core.advice.fault_search.suspects import Suspect, suspects
from tidy_trunk.core.advice.fault_search.symptoms import Symptom, symptom_in

__all__ = ["FaultTest", "Search", "SearchAnswer", "Suspect", "Symptom", "search", "suspects", "symptom_in"]
