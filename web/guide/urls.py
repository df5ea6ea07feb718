"""Addresses of the guide."""

from django.urls import path

from . import views

urlpatterns = [
    path("", views.guide, name="guide"),
    path("film/<int:number>/", views.film, name="guide-film"),
    path("try/<int:number>/", views.try_it, name="guide-try"),
]
