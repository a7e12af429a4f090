<template>
  <RoomNav
    place="Inbox"
    :rooms="[{ name: 'Conversations', to: '/inbox' }, { name: 'Texts', to: '/inbox/texts' }]"
  />
</template>
