<template><main><h1>Plauder</h1></main></template>
